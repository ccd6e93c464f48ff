# frozen_string_literal: true

require "open3"
require "set"

module Suite
  # Which files of tests a change can affect: those that rest on a changed file by what they require, and those that see it by what it
  # is drawn with.
  class Affected
    # @param root [String] the checkout
    def initialize(root)
      @root = root
    end

    # @param tests [Array<String>]
    # @return [Array<String>]
    def of(tests) = tests
  end
end
