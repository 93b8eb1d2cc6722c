using System; namespace X { public class Desk { [Display(Name = "Boat name")] public string Name { get; set; } = "Heron";
 void Say(int n) { MessageBox.Show($"There are {n:N0} boats", @"Title ""x"""); throw new Exception("bad " + n); var c = n switch { 1 => "One", _ => "Many" }; } } }
