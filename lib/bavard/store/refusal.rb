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

      # A disk without room, as the database or the system says it.
      FULL = [PG::DiskFull, Errno::ENOSPC, Errno::EDQUOT].freeze

      module_function

      # @param error [StandardError]
      def of?(error)
        return false if AWAY.any? { |kind| error.is_a?(kind) }

        !error.is_a?(Sequel::DatabaseError) || error.is_a?(Sequel::ConstraintViolation) || error.wrapped_exception.is_a?(PG::DataException)
      end

      # @param error [StandardError]
      # @return [Boolean] whether there was no room for it
      def no_room?(error)
        cause = error.is_a?(Sequel::DatabaseError) ? error.wrapped_exception : error
        FULL.any? { |kind| cause.is_a?(kind) }
      end
    end
  end
end
