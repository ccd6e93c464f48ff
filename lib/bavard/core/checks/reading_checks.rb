# frozen_string_literal: true

require_relative "../contrast/legibility"
require_relative "facts"

module Bavard
  module Core
    module Checks
      # Whether words can be read over the pictures that the host tries them on.
      module LegibleCheck
        extend Saying

        KEY = "legible"

        class << self
          # @return [Finding, nil] nothing where nothing on air has words
          def of(facts)
            worst = facts.texts.min_by(&:ratio) or return

            title = "Words can be read over your pictures"
            return well(title, "At worst #{worst.ratio} : 1, #{place(worst)}.", at: at(worst)) if worst.ratio >= Contrast::Legibility::LEAST_RATIO

            look("#{worst.label} is hard to read", "#{worst.ratio} : 1 where #{Contrast::Legibility::LEAST_RATIO} is wanted, #{place(worst)}.",
              at: at(worst), mend: clearer(worst))
          end

          private

          def place(text) = "the #{text.part} of #{text.label} over #{text.over}"
          def at(text) = "/stage/#{text.stage}##{text.piece}"

          def clearer(text)
            way = text.ways.first or return
            edit = {"do" => "set", "piece" => text.piece, "values" => way[:values]}
            Mend.new(words: "#{way[:words]}, in the draft", path: "/stage/#{text.stage}/edits", sends: edit, form: false)
          end
        end
      end

      # Whether lines stand as long as they take to read, and whether there is anything to see between them.
      module LastingCheck
        extend Saying

        KEY = "lasting"
        # As Reading::Pace has them, the worst first.
        WORST = ["too fast", "stale", "empty", "brisk"].freeze
        TITLES = {"too fast" => "Lines of %s go too fast", "stale" => "Lines of %s stay for too long", "empty" => "%s is empty most of the time",
                  "brisk" => "Long lines of %s go too fast"}.freeze

        class << self
          # @return [Finding, nil] nothing where no chat is on air
          def of(facts)
            return if facts.chats.empty?

            chat = WORST.filter_map { |word| facts.chats.find { |one| one.pace[:word] == word } }.first
            chat ? wrong(chat) : well("Lines stay long enough", calm(facts.chats.first), at: at(facts.chats.first))
          end

          private

          def calm(chat)
            stays = chat.pace[:stays_ms]
            return "As long as each takes to read." if chat.by == "reading"

            "#{stays ? seconds(stays) : "For good"} on the picture; the longest needs #{seconds(chat.pace[:longest_needs_ms])} to read."
          end

          def wrong(chat)
            edit = {"do" => "set", "piece" => chat.piece, "values" => chat.pace[:values]} if chat.pace[:values]
            mend = edit && Mend.new(words: "Mend it, in the draft", path: "/stage/#{chat.stage}/edits", sends: edit, form: false)
            look(format(TITLES.fetch(chat.pace[:word]), chat.label), chat.pace[:advice], at: at(chat), mend:)
          end

          def at(chat) = "/stage/#{chat.stage}##{chat.piece}"
        end
      end
    end
  end
end
