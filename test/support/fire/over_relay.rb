# frozen_string_literal: true

require_relative "../in_front"

module Fire
  # The same with nginx in front, which holds the lines of all screens, and dies as well.
  module OverRelay
    include InFront

    def relay = @nginx
    def door = in_front
    def stand_in_front = begin_in_front([app])
  end
end
