<%@ page import="java.util.*" %><%-- note --%><c:if test="${n > 0}"><h1>Boats: ${n}</h1></c:if>
<% String s = "Late boat"; out.print("On time"); %><input title='<%= s %>' value="Find"/><%! int x; %>
