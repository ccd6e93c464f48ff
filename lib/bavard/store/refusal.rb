# frozen_string_literal: true

require "pg"
require "sequel"

module Bavard
  module Store
    # Whether something cannot be written for what it is, and never will be; or only just now, because the database, or the disk, is away
    # or full.
    module Refusal
      # What says nothing of what was to be written: it is tried again.
      AWAY = [Sequel::PoolTimeout, SystemCallError, IOError, ThreadError].freeze

      module_function

      # @param error [StandardError]
      def of?(error)
        return false if AWAY.any? { |kind| error.is_a?(kind) }

        !error.is_a?(Sequel::DatabaseError) || error.is_a?(Sequel::ConstraintViolation) || error.wrapped_exception.is_a?(PG::DataException)
      end
    end
  end
end
