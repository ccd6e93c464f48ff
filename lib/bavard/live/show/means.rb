# frozen_string_literal: true

require_relative "mishaps"

module Bavard
  module Live
    # What running shows are made with; each part of a show is handed what it needs of it.
    #
    # stores:: Store::Stores; ids:: LineIds; pictures:: PictureDesk
    # disk:: Disk; platforms:: Feeds::Platform by key; door:: the one way out; conversations:: the demo's voice rooms by key, for rehearsals
    Means = Struct.new(:stores, :journal, :disk, :hub, :ids, :clock, :log, :meters, :mishaps, :pictures, :platforms, :door, :conversations,
      keyword_init: true) do
      # @raise [ArgumentError] that names what is missing
      def initialize(log:, meters:, clock:, **others)
        super(log:, meters:, clock:, mishaps: Mishaps.new(log, meters, clock), **others)
        missing = members.select { |name| self[name].nil? }
        raise ArgumentError, "without #{missing.join(", ")}" if missing.any?
      end
    end
  end
end
