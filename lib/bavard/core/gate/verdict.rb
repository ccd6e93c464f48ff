# frozen_string_literal: true

module Bavard
  module Core
    module Gate
      # What one rule found in a line.
      #
      # rule:: id of the rule; kind:: of the rule; action:: :drop, :hold, :mask or :calm
      # seen:: what it saw, as it is written; from, to:: where, in code points, or nil where it is the line as a whole
      # why:: in words; edits:: Edit each, of what is to be covered or toned down; name:: how the person is called on the picture, or nil
      Finding = Struct.new(:rule, :kind, :action, :seen, :from, :to, :why, :edits, :name)

      # What the gate decided on one line.
      #
      # action:: :pass, :calm, :mask, :hold or :drop: the gravest of what its rules said
      # rule:: id of the rule that decided, or nil
      # seen:: what that rule saw in the line, or nil
      # findings:: all that rules said, in their order
      # shown:: Shown, where it is not written as it came, or nil
      Verdict = Struct.new(:action, :rule, :seen, :findings, :shown) do
        # @return [Boolean] whether it goes on the picture without anybody's help
        def pass? = action != :drop && action != :hold

        # @return [Boolean] whether it goes on the picture nowhere
        def drop? = action == :drop

        # @return [Boolean] whether it waits for a person
        def hold? = action == :hold

        # @return [Verdict] the same, without anything of what the line said
        def without_words = self.class.new(action, rule, nil, [].freeze, nil)
      end

      # See above.
      class Verdict
        GRAVITY = {pass: 0, calm: 1, mask: 2, hold: 3, drop: 4}.freeze
        ACTIONS = GRAVITY.keys.freeze
      end

      PASS = Verdict.new(:pass, nil, nil, [].freeze, nil).freeze
    end
  end
end
