# frozen_string_literal: true

module Bavard
  # What runs beside the application, in processes of its own, and gives way to it: pictures, films, sounds, replays, exports.
  module Aside
    # How much it gives way, as nice(1) counts.
    NICE = Integer(ENV.fetch("BAVARD_NICE", "10"), 10).clamp(0, 19)

    # @return [Array<String>] the command as it is to be run
    def self.command(*command) = ["nice", "-n", NICE.to_s, *command]
  end
end
