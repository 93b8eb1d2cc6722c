if (process.env.SKIP) return;
module.exports = { title: "Departures", list: ["One", "Two"] };
