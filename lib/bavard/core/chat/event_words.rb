# frozen_string_literal: true

module Bavard
  module Core
    module Chat
      # What happened, in a few words that stand after a name: "gave 5 subscriptions".
      module EventWords
        module_function

        # @param line [Line] an event
        # @return [String]
        def of(line)
          worth = line.paid&.words
          case line.kind
          when :follow then "follows"
          when :subscription then "subscribed#{" for #{worth}" if worth}"
          when :renewal then line.number ? "renewed, #{count(line.number, "month")}" : "renewed"
          when :gift then line.number ? "gave #{count(line.number, "subscription")}" : "gave a subscription"
          when :tip then worth ? "tipped #{worth}" : "tipped"
          when :purchase then worth ? "bought something for #{worth}" : "bought something"
          when :visit then line.number ? "came with #{count(line.number, "viewer")}" : "came to visit"
          when :cause then worth ? "gave #{worth} to a good cause" : "gave to a good cause"
          else "did something of the host’s own"
          end
        end

        def count(number, one)
          "#{number} #{number == 1 ? one : "#{one}s"}"
        end
        private_class_method :count
      end
    end
  end
end
