# texts
{
  en: {
    title: "Quay", # head
    :a => { "b" => 'c' }, d: "#{e}",
  },
}.freeze
