# frozen_string_literal: true

module Bavard
  module Core
    # The way from a new show to the first line on the broadcast picture.
    module Lead
      # What is to be seen, in order. Each is done when it was seen to work, and stays done.
      #
      #   steps = Steps.of(Facts.new(lines: 3, …), {})
      #   steps.first.state   # => "done"
      module Steps
        # What is known of a show.
        #
        # feeds, live:: how many there are, and read; lines:: that came, with last_ms: how long ago the newest came, nil: none, and last_from
        # picture:: what stands behind the stage, in words, or nil; outfit:: what the stage wears, in words, or nil
        # revision:: of what is on air in that outfit, 0: nothing is; screens:: cards of those that show it, as Live::Screen gives them
        # painted:: Painted, the newest that counts, or nil
        Facts = Struct.new(:feeds, :live, :lines, :last_ms, :last_from, :picture, :outfit, :revision, :screens, :painted, keyword_init: true)
        # A line of a viewer's that a screen has drawn. who:: its writer; from:: its feed's name; took_ms:: from its arrival, the hold left out
        Painted = Struct.new(:who, :from, :took_ms)
        # state:: "done", "now" or "later"
        Step = Struct.new(:key, :title, :words, :state)
        TITLES = {"chat" => "Chat comes in", "picture" => "A picture to try it on", "look" => "How it looks",
                  "program" => "Into your broadcast program", "proof" => "The proof"}.freeze
        # Where nobody writes for so long, made-up lines show how it looks.
        QUIET_MS = 60_000
        # Until there is something to say.
        ASKED = {
          "chat" => "Where your viewers write. It is done when a line was heard.",
          "picture" => "A still of your broadcast, to see words over it. Only you see it.",
          "look" => "An outfit for all that stands on the picture. Everything you place later wears it too, and each part can be changed.",
          "program" => "One link, three numbers. Bavard waits for your program to open it, and says so here.",
          "proof" => "Have a line written from another account. It is done when your program has painted it."
        }.freeze

        module_function

        # @param facts [Facts]
        # @param done [Hash{String => Integer}] what was seen to work before, and when
        # @return [Array<Step>]
        def of(facts, done)
          now = TITLES.keys.find { |key| !done.key?(key) && !seen?(key, facts) }
          TITLES.map do |key, title|
            state = done.key?(key) || seen?(key, facts) ? "done" : "later"
            Step.new(key, title, words(key, facts) || ASKED.fetch(key), key == now ? "now" : state)
          end
        end

        # @return [Boolean] whether it works, as far as can be seen now
        def seen?(key, facts)
          case key
          when "chat" then facts.lines.positive?
          when "picture" then !facts.picture.nil?
          when "look" then !facts.outfit.nil? && facts.revision.positive?
          when "program" then facts.screens.any? { |screen| right?(screen) }
          when "proof" then !facts.painted.nil?
          end
        end

        # @return [Boolean] whether there is too little chat to see by it how it looks
        def quiet?(facts) = facts.last_ms.nil? || facts.last_ms > QUIET_MS

        # @return [String, nil] how it stands, in words
        def words(key, facts)
          case key
          when "chat" then chat(facts)
          when "picture" then facts.picture && "#{facts.picture}. Only you see it."
          when "look" then facts.outfit && look(facts)
          when "program" then program(facts.screens)
          when "proof" then facts.painted && painted(facts.painted)
          end
        end

        def look(facts)
          return "#{facts.outfit}, in your draft: only you see it." if facts.revision.zero?

          "#{facts.outfit}, on air as revision #{facts.revision}."
        end

        def chat(facts)
          return heard(facts) if facts.lines.positive?
          return if facts.feeds.zero?
          return "Connected, and nobody has written yet. Write a line there yourself." if facts.live.positive?

          "Not connected yet. Why stands in its lane on Feeds."
        end

        def heard(facts) = "#{facts.last_from} is heard: #{lines(facts.lines)} so far, the last #{ago(facts.last_ms)}."

        # Of those that there are, one that is right is enough.
        def program(screens)
          screen = screens.find { |one| right?(one) } || screens.first or return
          return "A screen has opened the link, and has not said how it is drawn yet." unless screen[:drawn]

          "A screen of #{screen[:drawn].join(" × ")} shows it#{", as large as the stage" if right?(screen)}. #{screen[:advice]}".strip
        end

        def painted(line) = "#{line.who} wrote on #{line.from}; your program had painted it #{took(line.took_ms)} later."

        def right?(screen) = screen[:right] == true
        def lines(count) = "#{count} line#{"s" unless count == 1}"
        def took(ms) = ms < 1000 ? "#{ms} ms" : "#{(ms / 1000.0).round(1)} s"

        def ago(ms)
          return "just now" if ms < 2000

          ms < 90_000 ? "#{ms / 1000} s ago" : "#{ms / 60_000} min ago"
        end
        private_class_method :words, :look, :chat, :heard, :program, :painted, :right?, :lines, :took, :ago
      end
    end
  end
end
