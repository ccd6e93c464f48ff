# frozen_string_literal: true

require_relative "transport"

module Bavard
  module Feeds
    module Described
      # An answer over HTTP that goes on: server-sent events (WHATWG HTML §9.2), or a JSON text a line.
      #
      # An item is {"event": …, "id": …, "data": …}, whose data is read as JSON where it is; of lines it is what stands in one.
      class Stream < Transport
        NAMES = %w[find at as items keep silent_ms writes ends].freeze
        ENDS = HTTP_ENDS
        SILENT_MS = 5000..600_000
        USUALLY_SILENT_MS = 60_000
        FORMS = %w[events lines].freeze

        # @return [Question]
        attr_reader :at
        # @return [Question, nil]
        attr_reader :writes
        attr_reader :silent_ms

        # @return [Boolean] whether a line is a JSON text, and not part of an event
        def lines? = @as == "lines"

        private

        def prepare(given)
          given.key?("at") ? @at = question(given["at"], "/at") : @problem.call("/at", "say where it is")
          @as = given.fetch("as", FORMS.first)
          @problem.call("/as", "one of #{FORMS.join(", ")}") unless FORMS.include?(@as)
          @silent_ms = given.fetch("silent_ms", USUALLY_SILENT_MS).to_i.clamp(SILENT_MS)
          @writes = question(given["writes"], "/writes") if given["writes"]
        end
      end
    end
  end
end
