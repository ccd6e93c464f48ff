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
          "renewal" => {"number" => "12"}, "gift" => {"number" => "5"}, "visit" => {"number" => "41"},
          "tip" => {"amount" => "5", "currency" => "EUR"}, "paid" => {"amount" => "300", "currency" => "sparks"},
          "purchase" => {"amount" => "12.5", "currency" => "EUR"}, "cause" => {"amount" => "10", "currency" => "EUR"}
        }.freeze

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

        # @return [String, nil] a number within the cue's range
        def bound(cue, what)
          from, to = cue.values_at("#{what}_from", "#{what}_to")
          [from, to].find(&:positive?)&.to_s
        end
        private_class_method :bound
      end
    end
  end
end
