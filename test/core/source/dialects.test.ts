import { beforeAll, describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { noShapes } from "../../../src/core/source/book-code.js";
import { dialectOf } from "../../../src/core/source/dialects/index.js";
import { phpIslands } from "../../../src/core/source/dialects/php/php.js";
import { readableText, type LookupShapes } from "../../../src/core/source/model.js";
import { prepareReaders, readSource } from "../../../src/core/source/read.js";
import { judgeLiteral } from "../../../src/core/survey/survey.js";

const shapes: LookupShapes = { ...noShapes, sourceLanguage: "en" };
beforeAll(() => prepareReaders(["a.erb", "a.php", "a.jsp", "a.html"]));

/** What users read of a file, by the survey's verdict. */
const textsOf = (file: string, text: string) => {
  const { literals } = readSource(file, text, false, shapes);
  return literals
    .filter((literal, index) => judgeLiteral(literal, undefined, { literals, index }).verdict === "text")
    .map(({ pieces }) => readableText(pieces));
};

describe("the dialect of a template", () => {
  test.each([
    ["page.html", "<p>Plain</p>", "html"],
    ["page.html", "<p>{{ boat.name }}</p>", "html"],
    ["page.html", '{% extends "base" %}<p>{{ boat }}</p>', "braces"],
    ["page.htm", "{{#each boats}}<p>{{name}}</p>{{/each}}", "braces"],
    ["page.html", "<?php if ($open): ?><p>Open</p><?php endif ?>", "php"],
    ["page.tpl", "<p>{$boat.name}</p>{if $open}Open{/if}", "curly"],
    ["page.tpl", "<!-- IF open --><p>{boat.name}</p><!-- ENDIF open -->", "commented"],
    ["page.tpl", "{{{ if open }}}<p>{./name}</p>{{{ end }}}", "commented"],
    ["page.tpl", "<p>{'Boats'|t}</p>", "curly"],
    ["page.tpl", '<PAGE_IF open><p title="<PAGE_VAR NAME="boat">">Open</p></PAGE_IF>', "capitals"],
    ["page.html", "<!-- PAGE_LOOP boats --><p><!-- PAGE_VAR boat --></p><!-- /PAGE_LOOP -->", "capitals"],
    ["page.mak", "<p>${boat}</p>", "mako"],
    ["page.html", '<p>${_("Boats")}</p>', "mako"],
    ["page.html", '<p th:text="#{boat.title}">Sea Rose</p>', "filled"],
    ["page.html", '<p data-th-each="boat : ${boats}">[[${boat.name}]]</p>', "filled"],
    ["page.html", "<ul>\n% for boat in boats:\n<li>${boat.name}</li>\n% endfor\n</ul>", "mako"],
    ["page.html", "<p>${boat.name} costs 5 % for all of us</p>", "html"],
    ["page.html", "<!-- Boats --><p>{boat}</p><!-- end of boats -->", "html"],
    ["page.html", "<!-- END OF THE BOATS --><p>{{boat}}</p><!-- IF YOU LIKE BOATS, read on -->", "html"],
    ["page.tpl", "<!-- BEGIN rows --><p>{boat}</p><!-- END rows -->", "commented"],
    ["page.tpl", "<!-- IF not boats && x --><p>{boat}</p><!-- ENDIF -->", "commented"],
    ["page.html", '<ul><% parts.begin("menu"); %><li>Boats</li><% parts.end(); %></ul>', "ejs"],
    ["page.tpl", "<a href='{config.root}/boats'>Boats</a>", "commented"],
    ["page.html", "<a href='{{config.root}}/boats'>Boats</a>", "html"],
    ["page.tpl", "<% if (open) { %><p>Open</p><% } %>", "ejs"],
    ["page.html", "@if (boat.open) {\n<p>Open</p>\n} @else {\n<p>Closed</p>\n}", "html"],
    ["page.html", '<p *ngIf="open">@if (a) { Open }</p><input [value]="x" (change)="f()">', "html"],
    ["page.html", "@if ($open)\n<p>Open</p>\n@endif", "directives"],
    ["page.html", "<% boats.each do |boat| %><p><%= boat.name %></p><% end %>", "erb"],
    ["page.tmpl", "@if ($open)<p>Open</p>@endif", "directives"],
    ["page.html", '<%@ page language="java" %><c:if test="${open}">Open</c:if>', "jsp"],
    ["page.php", "{% if x %}", "php"],
    ["page.vue", "{% if x %}", "vue"],
    ["page.tmpl", "{{ if .Open }}<p>{{ .Name }}</p>{{ end }}", "go"],
    ["page.html", "{{- range .Boats -}}<p>{{ .Name }}</p>{{- end -}}", "go"],
    ["page.tpl", '{{/* all boats */}}{{ define "boats" }}x{{ end }}', "go"],
    [
      "page.html",
      "{{if .Late}}Late{{else}}In time{{end}}{{range $i, $b := .Boats}}{{$b.Name}}{{else}}None{{end}}",
      "go",
    ],
    ["page.html", "{{#if late}}Late{{else}}In time{{/if}}", "braces"],
    ["page.html", "{{#if open}}<p>{{ name }}</p>{{/if}}", "braces"],
    ["page.html", "<p>{{ start }} to {{ end }}</p><p>{{ range.from }}</p>", "html"],
  ])("%s with %s is %s", (file, text, name) => {
    expect(dialectOf(file, text)?.name).toBe(name);
  });

  test("is what a book says where it says so", async () => {
    const named = { ...shapes, dialect: () => dialectOf("a.tpl", "{$x}") };
    await prepareReaders(["odd.html"], memoryFiles({}), named);
    expect(readSource("odd.html", "<p>{x} boats left</p>", false, named).dialect?.name).toBe("curly");
  });
});

describe("what people read in a template", () => {
  test.each<[string, string, string, string[]]>([
    [
      "what a filter or block looks up already is none, whatever the book names",
      "a.twig",
      `<a title="{% trans %}Copy to board{% endtrans %}" alt="{{ 'Go home'|t }}">{{ 'All boats' | trans({ a: b }) }}</a><b>{{ 'Still here'|upper }}</b>`,
      ["Still here"],
    ],
    [
      "what picks a member is none, nor what a call is given behind a filtered value",
      "a.twig",
      `<td>{{ row['Default name'] }}</td><td>{{ all.rows["Some row"].name ?? 'No row' }}</td><td>{{ row['Packed'] != '' ? 'It is'|t : 'Still not' }}</td><td>{{ head('Size'|t, 'size', 'DESC ROW') }}</td>`,
      ["No row", "Still not"],
    ],
    [
      "blocks that end by a word are no text, nor what they compare with",
      "a.tmpl",
      '{{/* all of them */}}{{ if and .A (eq .Kind "sail boat") }}<p>Boat {{ .Name }}</p>{{ else if eq .Kind "row boat" }}{{ with .Owner }}<b>Owned</b>{{ end }}{{- end -}}<i>{{ printf "At sea" }}</i>',
      ["Boat {name}", "Owned", "At sea"],
    ],
    [
      "settings that a template makes are none",
      "a.tpl",
      '{{ define "labels" }}\nquay.name: {{ .Name }}\nquay.kind: sail boat\napp.quay/version: {{ .Version }}\ncolors:\n- red paint\n{{ end }}\n',
      [],
    ],
    [
      "a script is none whose lines are lists of strings",
      "a.twig",
      "var names = [\n  '{{ one }}',\n  '{{ two }}',\n  '{{ three }}',\n];\nregional.names = [\n  '{{ four }}',\n  '{{ five }}',\n];\n",
      [],
    ],
    [
      "attributes whose text an element of the program gives",
      "a.html",
      '<input title="<gettext>Gone home</gettext>"><b title="Still <gettext>here</gettext>">1</b><b title="<em>Here</em>">1</b>',
      ["Still <gettext>here</gettext>", "<em>Here</em>"],
    ],
    [
      "marks that take blanks away are marks",
      "a.twig",
      `<b>{%- trans %}Gone home{%- endtrans -%}</b><i>{{- 'Still here' -}}</i><i>{{- name -}} sails</i>`,
      ["Still here", "{name} sails"],
    ],
    [
      "blocks and filters are no text",
      "a.html",
      '{% extends "x.html" %}{% block title %}Boats{% endblock %}<p>Hello {{ name|upper }}!</p>{# none #}',
      ["Boats", "Hello {name}!"],
    ],
    [
      "a script with a block right behind its name is a script",
      "a.html",
      "{{#a}}<script{{#nonce}} nonce='{{nonce}}'{{/nonce}}>{{#b}}send('boat.late', 'shown'){{/b}}</script><p{{#c}} class='x'{{/c}}>Late today</p>{{/a}}",
      ["Late today"],
    ],
    [
      "functions of a template with settings, and nothing else",
      "a.tpl",
      "<p>{boatPool type='late'}</p><u>{boatPool\n  type='early'\n  name=$x}</u><b>All boats</b><i>{t}Late today{/t}</i>",
      ["All boats"],
    ],
    [
      "tags in capitals, in attributes and in comments",
      "a.tpl",
      '<PAGE_IF NAME="late"><p class="<PAGE_VAR NAME="kind">" title="Boat <PAGE_VAR ESCAPE=HTML NAME=boat>">Late, <PAGE_VAR boat>!</p><PAGE_ELSE><!-- PAGE_VAR "quay" --><b>On time</b></PAGE_IF><PAGE_INCLUDE NAME="foot.tpl">',
      ["Boat {boat}", "Late, {boat}!", "On time"],
    ],
    [
      "texts in blocks that look them up",
      "a.tpl",
      '{if $x}<button title="{t}Late today{/t}">{t}Register now{/t}</button>{t count=2}All boats{/t}{t key="a.b"}<b>Still here</b>{/if}',
      ["Still here"],
    ],
    [
      "tags of other templates and comments in their signs are no text",
      "a.html",
      "<#if late><p><#name/> is late today</p><#newLine/></#if>",
      ["is late today"],
    ],
    [
      "comments in signs, without any block beside them",
      "a.html",
      "{# This is shown when all else fails #}\n<p>Late today: {{ boat }}</p>",
      ["Late today: {boat}"],
    ],
    [
      "comments in signs over several lines",
      "a.html",
      "{# What is given to it:\n  boat - the boat\n  quay - where it is\n#}\n<p>Late today: {{ boat }}</p>",
      ["Late today: {boat}"],
    ],
    [
      "values in marks of a page's own are no text",
      "a.html",
      "<p>{$ ::boat.name $}</p><b>Leaves at {$ boat.time | date $}</b><i>[[ boat.quay ]]</i><u>[[all boats]]</u>",
      ["Leaves at {time}", "[[all boats]]"],
    ],
    [
      "a part of a script that a function of a server puts out",
      "a.php",
      "<?php\nfunction menu() {\n?>\n  var width = 200;\n\n  $('#quay').menu({\n    none: '<?php print _('All quays');?>',\n    chosen: function(count) {\n      mine = count + ' <?php print _('chosen');?>';\n      return mine;\n    },\n    all: '<?php print _('All');?>',\n    open: 'Open boats'\n  });\n<?php\n}\nfunction tell() {\n?>\n<hr>\nThe boat leaves at <?php print $time; ?> from the quay,\nand nobody waits.\nBe there in time;\nwe say it once.\n<?php\n}\n",
      ["The boat leaves at {time} from the quay, and nobody waits. Be there in time; we say it once."],
    ],
    [
      "a tag may have its name from the template",
      "a.twig",
      '<{% if x %}h2{% else %}h3{% endif %} class="wide">Open boats</{% if x %}h2{% else %}h3{% endif %}><{{ tag }}>Late boats</{{ tag }}>',
      ["Open boats", "Late boats"],
    ],
    [
      "a tag with braces of its own inside is one",
      "a.tpl",
      '{if $a}{assign "boat" $boats.{name($key)}}<p>{$boat} has left</p>{/if}',
      ["{boat} has left"],
    ],
    [
      "blocks in comments, and paths in braces, are no text",
      "a.tpl",
      "<!-- BEGIN boats --><p title='{../quay.icon:text}'>{boats.icon:text}</p><b>Leaves at {boats.time}</b><p>{function.list, boats, quay.name}</p><i>{x y}</i><!-- END boats -->",
      ["Leaves at {time}", "{x y}"],
    ],
    [
      "what a template lists raw or comments out is no text",
      "a.twig",
      "{% comment %}<p>Old text here</p>{% endcomment %}<p>New text here</p>",
      ["New text here"],
    ],
    [
      "tags of a library inside attributes and titles are no text",
      "a.jsp",
      '<title><fmt:message key="boats.title"/></title><input value="<c:out value="${boat}"/>" title="Name of the boat"/>',
      ["Name of the boat"],
    ],
    [
      "a tag of a library that puts a value out is a part of its sentence, and one that decides is none",
      "a.jsp",
      '<p>You have <c:out value="${count}"/> boats</p><p>Open <c:if test="${late}"/> later</p>',
      ["You have  boats", "Open", "later"],
    ],
    [
      "a script that a template makes holds texts with values, and code that is none",
      "a.js.erb",
      '$("#late").html("<%= j render(@boat) %>");\n<% if @late %>alert("The boat to <%= @port %> is late");<% end %>',
      ["The boat to {port} is late"],
    ],
    [
      "what a template makes for programs holds no text",
      "a.json.erb",
      '{ "name": "<%= @boat %> is late" }',
      [],
    ],
    [
      "the values in a script of a page are parts of its texts",
      "a.html",
      '{% if x %}{% endif %}<script>var port = {{ port }}; alert("Boats to {{ name }} are late");</script>',
      ["Boats to {name} are late"],
    ],
    [
      "statements of a template of scripts are one program",
      "a.ejs",
      "<% const kinds = { sail: 'Sailing boat' }; %><% boats.forEach(function (boat) { %><p><%= kinds[boat.kind] || 'Another boat' %></p><% }) %><% let label = open ? 'Open today' : 'Closed today'; %>",
      ["Sailing boat", "Another boat", "Open today", "Closed today"],
    ],
    [
      "where they are no program, each expression is read by itself",
      "a.ejs",
      "<% if (open { %><p><%= open ? 'Open today' : 'Closed today' %></p><% } %>",
      ["Open today", "Closed today"],
    ],
    [
      "expressions of a page hold texts",
      "a.jsp",
      "<p>${boat.open ? 'Open today' : 'Closed today'}</p><p class=\"${boat.open ? 'is-open' : 'is-closed'}\">A boat</p>",
      ["Open today", "Closed today", "A boat"],
    ],
    [
      "variables of a page are named by what they hold",
      "a.jsp",
      '<c:set var="pageTitle" value="Boats of the lake"/><c:set var="cssClass" value="wide"/><p>Boats</p>',
      ["Boats of the lake", "Boats"],
    ],
    [
      "blocks that are looked up are none, and neither is what a class is made of",
      "a.html",
      "{% block body_class %}wide {{ season }}{% endblock %}{% trans %}Looked up{% endtrans %}{% blocktrans with a=b %}Looked up {{ a }}{% endblocktrans %}<p>Not this</p>",
      ["Not this"],
    ],
    [
      "what a filter is given is a pattern, unless it shows it",
      "a.html",
      "{% if x %}{% endif %}<p>{{ day|date:'j F Y' }} {{ port|default:'No port' }} {{ price|money:'EUR' }}</p>",
      ["No port"],
    ],
    [
      "members of objects are told by their names",
      "a.twig",
      "{{ field('name', 'Name of the boat', { attr: { class: 'wide', title: 'As on its side' }, type: 'text' }) }}",
      ["Name of the boat", "As on its side"],
    ],
    [
      "code of directives and of bound attributes is read",
      "a.blade.php",
      "@php\n$a = 'Boats of the lake';\n@endphp\n@foreach (['name' => 'Name of the boat'] as $k => $v)<x-list :options=\"['all' => 'All the boats']\" />@endforeach",
      ["Boats of the lake", "Name of the boat", "All the boats"],
    ],
    [
      "what blocks of a component compare is code, and what they list is text",
      "a.svelte",
      "{#if kind === 'sail'}<p>A sailing boat</p>{/if}{#each ['First boat', 'Last boat'] as name}<p>{name}</p>{/each}{@html '<p>Boats of the lake</p>'}{@const note = 'Not before eight'}",
      ["A sailing boat", "First boat", "Last boat", "Boats of the lake", "Not before eight"],
    ],
    [
      "settings at the head of a page are none of its text",
      "a.hbs",
      "---\ntitle: Boats of the lake\n---\n<p>Boats</p>",
      ["Boats"],
    ],
    [
      "values that are printed into a class are code",
      "a.php",
      "<p class=\"<?php echo $open ? 'open' : 'late' ?>\"><?php echo $open ? 'Open today' : 'Closed today' ?></p>",
      ["Open today", "Closed today"],
    ],
    [
      "lookups that are named for nothing else are done",
      "a.html",
      "{% trans 'Already moved out of here' %}<p>{{ _('And this one too') }}</p><p>Not this</p>",
      ["Not this"],
    ],
  ])("%s", (_, file, text, texts) => {
    expect(textsOf(file, text)).toEqual(texts);
  });

  test("PHP ends at ?> outside of its strings, and inside comments of one line", () => {
    const code = (text: string) => phpIslands(text).map(({ start, end }) => text.slice(start, end));
    expect(code("a<?php echo '?>'; ?>b<?= $x ?>c")).toEqual(["<?php echo '?>'; ?>", "<?= $x ?>"]);
    expect(code("<?php // done ?>text<?php /* ?> */ f(); ?>")).toEqual([
      "<?php // done ?>",
      "<?php /* ?> */ f(); ?>",
    ]);
    expect(code('<?xml version="1.0"?><p>')).toEqual([]);
    expect(code("<?php echo <<<END\n?> is text\nEND; ?>x")).toEqual([
      "<?php echo <<<END\n?> is text\nEND; ?>",
    ]);
    expect(code("<?php echo 'never ends ?> here")).toEqual(["<?php echo 'never ends ?> here"]);
  });
});

describe("blocks of helpers that hold scripts", () => {
  beforeAll(() => prepareReaders(["a.erb"]));
  const textsIn = (page: string) =>
    readSource("a.erb", page, false, noShapes)
      .literals.filter(({ form }) => form === "content" || form === "phrase")
      .map(({ span }) => page.slice(span.start, span.end).trim());

  test.each<[string, readonly string[]]>([
    [
      "<p>Before</p><%= javascript_tag do %>\nvar a = { label: <%= x %>, color: 'red', b: [1] };\n<% end %><p>Behind</p>",
      ["Before", "Behind"],
    ],
    ["<% content_for :scripts do %>\nstart({ a: 1 }, function () { go(); });\n<% end %>", []],
    ["<%= javascript_tag do %><% if x %>go(1);<% end %> stop('<b>x</b>');<% end %><p>Behind</p>", ["Behind"]],
    ["<% content_for :scripts do %>\n<script>go('a');</script><p>Shown</p>\n<% end %>", ["Shown"]],
    ["<%= form_for(x) do |f| %>Fill this in<% end %>", ["Fill this in"]],
  ])("%j", (page, texts) => {
    expect(textsIn(page)).toEqual(texts);
  });
});
