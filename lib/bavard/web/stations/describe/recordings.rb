# frozen_string_literal: true

require_relative "../../../error"

module Bavard
  module Web
    # What is being recorded of platforms just now: one at a time for each show, and some for all.
    class Recordings
      MOST = 20
      Entry = Struct.new(:description_id, :recorder)

      def initialize
        @lock = Mutex.new
        @entries = {}
      end

      # The one before ends.
      #
      # @param recorder [Feeds::Described::Bench::Recorder] not yet started
      # @raise [Bavard::Error] where as many as may be are recorded
      def begin(show_id, description_id, recorder)
        before = @lock.synchronize do
          make_room(show_id)
          @entries[show_id].tap { @entries[show_id] = Entry.new(description_id, recorder) }
        end
        before&.recorder&.stop
        recorder.start
      end

      # @return [Feeds::Described::Bench::Recorder, nil] of that description
      def of(show_id, description_id)
        entry = @lock.synchronize { @entries[show_id] }
        entry.recorder if entry&.description_id == description_id
      end

      private

      def make_room(show_id)
        return if @entries.size < MOST || @entries.key?(show_id)

        @entries.delete_if { |_, entry| entry.recorder.over? }
        raise Busy, "As many platforms as may be are being recorded just now. Try again in a minute." if @entries.size >= MOST
      end
    end
  end
end
