# frozen_string_literal: true

require_relative "error"

module Bavard
  # Somebody wants it no more.
  class Stopped < Error; end

  # What takes long and is watched by nobody: as Live::Takings::Taking, which hears how far it is and may want it no more.
  module Unwatched
    module_function

    # @param done [Numeric] of total
    def told(done, total); end

    def stopped? = false
  end
end
