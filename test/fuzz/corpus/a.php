<?php namespace App; use X\Y; $errors[] = "Name is missing"; ?>
<h1><?= htmlspecialchars($title) ?></h1><?php if ($n > 1): ?><p>There are <?php echo $n; ?> boats</p><?php endif; ?>
<?php return ['title' => 'It\'s "late"', "n" => "$n boats in {$place['x']}", 'h' => <<<TXT
Heredoc $x
TXT];
