# frozen_string_literal: true

require_relative "facts"

module Bavard
  module Core
    module Checks
      # Whether chats are read, with the numbers of today's broadcast.
      module FeedsCheck
        extend Saying

        KEY = "feeds"

        class << self
          # @param facts [Facts]
          # @return [Finding]
          def of(facts)
            wanted = facts.feeds.select(&:wanted)
            return look("No chat is read", "Nothing can come onto the picture.", at: "/feeds") if wanted.empty?

            dead = wanted.reject { |feed| feed.state == "live" }
            numberless = dead.find { |feed| feed.numbers.value?(nil) }
            return look("#{numberless.name} has nothing set for today", asked(numberless), at: "/feeds") if numberless

            dead.empty? ? well(live(wanted), numbers(wanted) || named(wanted.map(&:name), 6), at: "/feeds") : silent(dead, wanted)
          end

          private

          def live(wanted) = wanted.size == 1 ? "#{wanted.first.name} is live" : "#{wanted.size} feeds are live"
          def asked(feed) = "“#{feed.numbers.key(nil)}” is another one for each broadcast, and none is set."

          def numbers(wanted)
            set = wanted.flat_map { |feed| feed.numbers.compact.map { |what, value| "#{feed.name}: “#{what}” is #{value}." } }
            set.first(2).join(" ") if set.any?
          end

          def silent(dead, wanted)
            first = dead.first
            title = dead.size == 1 ? "#{first.name} is not live" : "#{dead.size} of #{wanted.size} feeds are not live"
            again = Mend.new(words: "Connect anew", path: "/feeds/#{first.id}/connect", sends: {}, form: true) if dead.size == 1
            look(title, first.reason || "It is being connected.", at: "/feeds", mend: again)
          end
        end
      end

      # Whether this computer and the platforms mean the same time.
      module ClocksCheck
        extend Saying

        KEY = "clocks"
        UNITS = [[3_600_000, "h"], [60_000, "min"], [1000, "s"]].freeze

        class << self
          # @return [Finding, nil] nil where nobody knows
          def of(facts)
            feeds = facts.feeds.select { |feed| feed.wanted && feed.behind_ms }
            return if feeds.empty?

            feed = feeds.max_by { |one| one.behind_ms.abs }
            feed.behind_ms.zero? ? well("The clocks agree", "#{named(feeds.map(&:name))} and this computer mean the same time.") : wrong(feed)
          end

          private

          def wrong(feed)
            way = feed.behind_ms.positive? ? "behind" : "ahead of"
            look("#{feed.name}’s clock is #{apart(feed.behind_ms.abs)} #{way} this computer’s",
              "What it tells again after a cut is shown all the same. A clock on the picture goes by this computer’s: look which is right.")
          end

          # @return [String] such as "2.5 h", "61 min", "90 s"
          def apart(apart_ms)
            unit_ms, unit = UNITS.find { |one_ms, _| apart_ms >= one_ms * 2 } || UNITS.last
            "#{apart_ms.fdiv(unit_ms).round(1).to_s.delete_suffix(".0")} #{unit}"
          end
        end
      end

      # Hold, brake and rules.
      module GateCheck
        extend Saying

        KEY = "gate"

        class << self
          def of(facts)
            gate = facts.gate
            return braked(gate) if gate.brake

            well("The gate is open", "#{held(gate)} The rules are “#{gate.rules}”.", at: "/gate")
          end

          private

          def braked(gate)
            lift = Mend.new(words: "Lift it", path: "/gate/brake", sends: {"kind" => "off"}, form: false)
            look("The brake is on", "#{gate.brake}. #{held(gate)}", at: "/gate", mend: lift)
          end

          def held(gate)
            ms, by_role = gate.hold.values_at("ms", "by_role")
            longest_ms = [ms, *by_role.values].max
            return "Nothing is held." if longest_ms.zero?

            same = by_role.values.all?(ms)
            same ? "Each line is held for #{seconds(ms)}." : "Lines are held for up to #{seconds(longest_ms)}, by the role of who wrote."
          end
        end
      end
    end
  end
end
