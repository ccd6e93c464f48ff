# frozen_string_literal: true

require "sequel"
require_relative "../../live/journal/disk"
require_relative "../../store/refusal"

module Bavard
  module Web
    # What is told where nothing can be read or kept just now: the database is away, or there is no room on the disk.
    module NotKept
      AWAY = "The database does not answer just now. What is on air goes on; try again in a moment."
      KINDS = [Sequel::DatabaseError, Sequel::PoolTimeout, Errno::ENOSPC, Errno::EDQUOT].freeze

      # @param site [Site]
      # @param error [StandardError] of KINDS
      # @return [String] a database that finds no room may end, and is away then
      def self.words(site, error) = Store::Refusal.no_room?(error) || site.disk.full? ? Live::Disk::FULL : AWAY
    end
  end
end
