# frozen_string_literal: true

require_relative "../cues/goal"
require_relative "intake_checks"
require_relative "parts_checks"
require_relative "reading_checks"
require_relative "stage_checks"

module Bavard
  module Core
    module Checks
      # All that is looked at before a broadcast, in the order in which it goes wrong.
      #
      #   Sheet.of(facts).reject(&:well).map(&:title)   # => ["One screen is not as large as its stage"]
      module Sheet
        ALL = [FeedsCheck, ClocksCheck, OnAirCheck, ScreensCheck, LegibleCheck, LastingCheck, HiddenCheck, FilesCheck, SoundsCheck, VoicesCheck,
          CuesCheck, GoalsCheck, GateCheck].freeze

        # @param facts [Facts]
        # @return [Array<Finding>] of what there is to look at; first what is not well
        def self.of(facts) = ALL.filter_map { |check| check.of(facts) }.partition { |finding| !finding.well }.flatten(1)
      end
    end
  end
end
