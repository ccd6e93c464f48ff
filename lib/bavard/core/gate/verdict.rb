# frozen_string_literal: true

module Bavard
  module Core
    module Gate
      # What the gate decided on one line.
      #
      # action:: :pass or :drop
      # rule:: the name of the rule that decided, or nil
      # seen:: what that rule saw in the line, or nil
      Verdict = Struct.new(:action, :rule, :seen) do
        def pass?
          action == :pass
        end
      end

      PASS = Verdict.new(:pass, nil, nil).freeze
    end
  end
end
