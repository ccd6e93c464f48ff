# frozen_string_literal: true

require_relative "cue"
require_relative "queue"
require_relative "sheet"
require_relative "tally"

module Bavard
  module Core
    module Cues
      # A show's cue sheet and how its queue behaves, as one document.
      module Settings
        MOST = 500
        MOST_TOTAL = 10**12
        # Chats that told how many follow them.
        MOST_PLACES = 60
        LONGEST_PLACE = 200
        QUEUE = {"gap_ms" => 800, "longest_wait_ms" => 300_000, "alike_ms" => 4000, "most" => 40, "approve" => false}.freeze
        BOUNDS = {"gap_ms" => 0..60_000, "longest_wait_ms" => 5000..3_600_000, "alike_ms" => 0..60_000, "most" => 1..200}.freeze

        module_function

        # @return [Hash] where nothing was set yet
        def default
          {"cues" => Cue.defaults, "queue" => QUEUE, "began_ms" => nil, "ended_ms" => nil, "noticed" => nil, "totals" => {}, "told" => {}}
        end

        # @param kept [Hash, nil] from the database, or taken over from elsewhere
        # @return [Hash]
        # @raise [Bavard::Error]
        def read(kept)
          return default unless kept.is_a?(Hash) && kept["cues"].is_a?(Array)

          cues = kept["cues"].first(MOST).grep(Hash).each_with_index.map { |cue, index| Cue.build(id(cue, index), cue.slice(*Cue::PROPERTIES.keys)) }
          {"cues" => cues, "queue" => queue(kept["queue"]), "noticed" => kept["noticed"].is_a?(String) ? kept["noticed"][0, 120] : nil,
           "began_ms" => moment(kept["began_ms"]), "ended_ms" => moment(kept["ended_ms"]), "totals" => totals(kept["totals"]),
           "told" => read_places(kept["told"])}
        end

        # @return [Hash{String => Hash}] by place, as {#totals}: what platforms told of themselves
        def read_places(given)
          return {} unless given.is_a?(Hash)

          given.first(MOST_PLACES).to_h { |place, totals| [place[0, LONGEST_PLACE], totals(totals)] }
        end

        # What is there already, besides what Bavard counted.
        #
        # @param given [Hash{String => Integer}] by what is counted
        def totals(given)
          return {} unless given.is_a?(Hash)

          given.slice(*Tally::COUNTED.keys).select { |_, number| number.is_a?(Integer) && number.between?(-MOST_TOTAL, MOST_TOTAL) }
        end

        # @return [Hash]
        def queue(given)
          given = {} unless given.is_a?(Hash)
          QUEUE.to_h do |name, value|
            bounds = BOUNDS[name]
            [name, bounds ? (Integer(given[name], exception: false) || value).clamp(bounds) : given.fetch(name, value) == true]
          end
        end

        # A sheet from elsewhere: what is for chats that are not there rests until somebody says for which it is.
        #
        # @param sheet [Hash] with cues
        # @param feed_ids [Array<String>] of the show it comes to
        # @return [Hash]
        def at_home(sheet, feed_ids)
          cues = sheet["cues"].map do |cue|
            feeds = cue["feeds"] & feed_ids
            feeds == cue["feeds"] ? cue : cue.merge("feeds" => feeds, "on" => cue["on"] && feeds.any?)
          end
          sheet.merge("cues" => cues)
        end

        # @return [Sheet]
        def sheet(document) = Sheet.new(document["cues"].map { |cue| Cue.asked(cue) })

        # @return [Queue::Settings]
        def queue_settings(document) = Queue::Settings.new(**document["queue"].transform_keys(&:to_sym))

        def moment(given) = given.is_a?(Integer) ? given : nil
        def id(cue, index) = cue["id"].to_s.match?(/\A[a-z0-9_]{1,40}\z/) ? cue["id"] : "cue_#{index}"
        private_class_method :id, :moment
      end
    end
  end
end
