$(function () { $("#x").html("<p class='a'>Choose a <b>cabin</b></p>").attr("title", "Cabins"); });
var s = n == 1 ? "day" : "days", r = /["'`]+/g; if (a / b / c) toast('Saved \'now\'');
label: for (;;) { break label }
