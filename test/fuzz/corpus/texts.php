<?php
declare(strict_types=1);
# The texts of the shop.
return [
    'title' => 'L\'accueil', // beside
    "greeting" => "Hi $name,\n\"you\"",
    'cart' => array('a' => 'x', 'b' => 'y' . 'z', 5 => 'five', Foo::BAR => 'bar'),
    'days' => ['Monday', 'Tuesday'],
    'long' => <<<END
      A text
      END,
];
