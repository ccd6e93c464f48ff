# frozen_string_literal: true

require_relative "../core/amount"
require_relative "../core/intake"

module Bavard
  module Store
    # What only some lines have, as one small document: emotes the platform placed, a reply, an amount and so on.
    module LineDetail
      module_function

      # @param line [Core::Chat::Line]
      # @param shown [Core::Gate::Shown, nil] how it is written on the picture, where that is otherwise
      # @return [Hash] without what is not there
      def of(line, shown = nil)
        detail = shown ? {"shown" => shown.to_a} : {}
        detail["placed"] = line.placed if line.placed.any?
        detail["reply"] = line.reply.to_a if line.reply
        detail["first"] = true if line.first_time
        detail["paid"] = line.paid.document if line.paid
        detail["number"] = line.number if line.number
        of_person(line.person, detail)
      end

      def of_person(person, detail)
        detail["avatar"] = person.avatar if person.avatar
        detail["badge_pictures"] = person.badge_pictures if person.badge_pictures&.any?
        detail
      end
      private_class_method :of_person

      # Puts it back onto a line.
      def read(detail, line)
        line.placed = detail["placed"] if detail["placed"]
        line.reply = Core::Reply.new(*detail["reply"]) if detail["reply"]
        line.first_time = detail["first"] == true
        line.paid = Core::Amount.read(detail["paid"])
        line.number = detail["number"]
        line
      end
    end
  end
end
