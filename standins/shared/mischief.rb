# frozen_string_literal: true

module StandIns
  # Ways in which the stand-in misbehaves on purpose, switched on its page.
  class Mischief
    ALL = {
      "stall" => "Say nothing more", "repeat" => "Send everything twice", "reorder" => "Send out of order", "garbage" => "Send nonsense",
      "slow" => "Be slow", "limit" => "Ask less often"
    }.freeze
    SLOW_S = 0.8

    def initialize
      @on = {}
    end

    def set(what, on)
      @on[what] = on if ALL.key?(what)
    end

    def on?(what) = @on.fetch(what, false)
    def now = ALL.keys.to_h { |what| [what, on?(what)] }

    # @param items [Array]
    # @return [Array] as they are sent
    def disturb(items)
      items = items.flat_map { |item| [item, item] } if on?("repeat")
      items = items.reverse if on?("reorder")
      items
    end

    def dawdle = (sleep(SLOW_S) if on?("slow"))
  end
end
