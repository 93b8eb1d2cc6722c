# note
class Boat < Base
  validates :name, presence: { message: "must have a name" }
  TITLE = 'The "Heron"'.freeze
  def say(n)
    errors << "Invalid: #{n}" if n.zero?
    flash[:notice] = n == 1 ? "One boat" : "#{n} boats"
    puts %w[a b].map { |x| "Deck #{x}" }.join(", ") unless x =~ /late\/"/
    redirect_to root_path, alert: <<~TEXT
      Please try again, #{name}
    TEXT
  end
end
