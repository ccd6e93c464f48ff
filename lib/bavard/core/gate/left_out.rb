# frozen_string_literal: true

require_relative "../chat/person"
require_relative "verdict"

module Bavard
  module Core
    module Gate
      # Drops whatever certain people write. They are not banned anywhere and need not know.
      class LeftOut
        NAME = "left_out"
        LABEL = "left out"

        # @param names [Array<String>] logins or display names, in any case; they count on every feed
        def initialize(names)
          @names = names.to_h { |name| [Chat::Person.fold(name.strip.delete_prefix("@")), true] }
        end

        # @param line [Chat::Line]
        # @return [Verdict, nil]
        def judge(line)
          return if @names.empty?

          person = line.person
          seen = [person.login, person.display_name].find { |name| @names[Chat::Person.fold(name)] }
          Verdict.new(:drop, NAME, seen) if seen
        end
      end
    end
  end
end
