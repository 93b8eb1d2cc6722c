<%@ page contentType="text/html; charset=UTF-8" %>
<%@ taglib prefix="say" uri="/tags/texts" %>
<html>
<head><title><say:text key="berths.title"/></title></head>
<body>
  <h1><say:text key="berths.heading"/></h1>
  <p>Boats that stay overnight need a berth.</p>
  <form action="reserve.do" method="post">
    <label for="boat"><say:text key="berths.boat"/></label>
    <input id="boat" name="boat" placeholder="Name of the boat">
    <label for="night"><say:text key="berths.night"/></label>
    <input id="night" name="night" type="date">
    <input type="submit" value="Reserve a berth">
  </form>
</body>
</html>
