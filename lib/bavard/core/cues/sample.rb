# frozen_string_literal: true

require_relative "cue"

module Bavard
  module Core
    module Cues
      # A made-up event, to try a cue with or to see what a kind of event does.
      module Sample
        NAME = "kestrel_ann"
        # What belongs to an event of each kind: amount in whole units, months, gifts or viewers.
        USUAL = {
          "milestone" => {"name" => "On the way to 60", "number" => "50"}, "renewal" => {"number" => "12"},
          "gift" => {"number" => "5"}, "visit" => {"number" => "41"},
          "tip" => {"amount" => "5", "currency" => "EUR"}, "paid" => {"amount" => "300", "currency" => "sparks"},
          "purchase" => {"amount" => "12.5", "currency" => "EUR"}, "cause" => {"amount" => "10", "currency" => "EUR"}
        }.freeze

        NAMES = %w[kestrel_ann tern_and_cough hoopoe_fan mudlark7 birdbath grebe_expectations かわせみ Plúie_d’été].freeze
        MESSAGES = ["", "best hour of my day, thank you", "for the nest boxes", "おはようございます", "greetings from the other bank, where it rains"].freeze
        # Of what usually comes, from a tenth to ten times as much.
        SPREAD = [0.1, 0.5, 1, 2, 4, 10].freeze

        LAST_MILESTONE = 99

        module_function

        # @param kind [String] of KINDS
        # @return [Hash{String => String}] as somebody would type it: kind, name, amount, currency, number
        def of(kind) = {"kind" => kind, "name" => NAME}.merge(USUAL.fetch(kind, {}))

        # @param cue [Hash]
        # @return [Hash{String => String}] that fits the cue, as far as that can be typed
        def for(cue)
          sample = of(cue["kind"])
          person = Cue.people(cue).first
          sample["name"] = person if person
          sample["currency"] = cue["currency"] unless cue["currency"].empty?
          amount = bound(cue, "amount")
          sample["amount"] = amount if amount
          number = bound(cue, cue["kind"] == "renewal" ? "months" : "number")
          sample["number"] = number if number
          sample
        end

        # By chance, and still so that it fits the cue.
        #
        # @param random [Random]
        # @return [Hash{String => String}] as {for}, with a message
        def thrown(cue, random)
          usual = self.for(cue)
          people = OF_PIECES.include?(cue["kind"]) ? [usual["name"]] : Cue.people(cue)
          amounts = {"amount" => "amount", "number" => cue["kind"] == "renewal" ? "months" : "number"}
            .select { |typed, _| usual.key?(typed) }.to_h { |typed, what| [typed, within(cue, what, usual[typed].to_f * SPREAD.sample(random:))] }
          usual.merge(amounts, "name" => (people.any? ? people : NAMES).sample(random:), "message" => MESSAGES.sample(random:))
        end

        def within(cue, what, number)
          from, to = cue.values_at("#{what}_from", "#{what}_to")
          [[number.round, from, 1].max, (to if to.positive?), (LAST_MILESTONE if cue["kind"] == "milestone")].compact.min.to_s
        end

        # @return [String, nil] a number within the cue's range
        def bound(cue, what)
          from, to = cue.values_at("#{what}_from", "#{what}_to")
          [from, to].find(&:positive?)&.to_s
        end
        private_class_method :bound, :within
      end
    end
  end
end
