# frozen_string_literal: true

require_relative "cue"
require_relative "queue"
require_relative "sheet"

module Bavard
  module Core
    module Cues
      # A show's cue sheet and how its queue behaves, as one document.
      module Settings
        MOST = 500
        QUEUE = {"gap_ms" => 800, "longest_wait_ms" => 300_000, "alike_ms" => 4000, "most" => 40, "approve" => false}.freeze
        BOUNDS = {"gap_ms" => 0..60_000, "longest_wait_ms" => 5000..3_600_000, "alike_ms" => 0..60_000, "most" => 1..200}.freeze

        module_function

        # @return [Hash] where nothing was set yet
        def default = {"cues" => Cue.defaults, "queue" => QUEUE, "began_ms" => nil}

        # @param kept [Hash, nil] from the database, or taken over from elsewhere
        # @return [Hash]
        # @raise [Bavard::Error]
        def read(kept)
          return default unless kept.is_a?(Hash) && kept["cues"].is_a?(Array)

          cues = kept["cues"].first(MOST).grep(Hash).each_with_index.map { |cue, index| Cue.build(id(cue, index), cue.slice(*Cue::PROPERTIES.keys)) }
          {"cues" => cues, "queue" => queue(kept["queue"]), "began_ms" => kept["began_ms"].is_a?(Integer) ? kept["began_ms"] : nil}
        end

        # @return [Hash]
        def queue(given)
          given = {} unless given.is_a?(Hash)
          QUEUE.to_h { |name, value| [name, BOUNDS[name] ? (given[name] || value).to_i.clamp(BOUNDS[name]) : given.fetch(name, value) == true] }
        end

        # @return [Sheet]
        def sheet(document) = Sheet.new(document["cues"].map { |cue| Cue.asked(cue) })

        # @return [Queue::Settings]
        def queue_settings(document) = Queue::Settings.new(**document["queue"].transform_keys(&:to_sym))

        def id(cue, index) = cue["id"].to_s.match?(/\A[a-z0-9_]{1,40}\z/) ? cue["id"] : "cue_#{index}"
        private_class_method :id
      end
    end
  end
end
