# frozen_string_literal: true

require "sequel"
require_relative "../error"
require_relative "lease"

module Bavard
  module Store
    # The processes that share the shows of one installation, and where each show runs. That nobody else runs it is what {Lease} sees to; this
    # only says where to look.
    class Workers
      # So many can there be.
      MOST = 64
      # Who was not seen for so long may lose its number.
      FORGOTTEN_AFTER_S = 3600
      # The locks of a process that was killed are let go within a moment.
      TRIES = 20
      TRY_EVERY_S = 0.1

      attr_reader :address

      # @param lease [Lease, nil] of this one
      # @param address [String, nil] host and port of this one; nil: of somebody who only looks
      def initialize(db, lease = nil, address = nil)
        @db = db
        @lease = lease
        @address = address
      end

      # @return [Integer] a number that no other worker has, the same as last time where it was here lately
      # @raise [Bavard::Error]
      def enter
        number = entered
        TRIES.times { @lease.stand(number) ? (return number) : sleep(TRY_EVERY_S) }
        raise Error, "A worker is at #{address} already."
      end

      # That it goes on.
      def beat = @db[:workers].where(address:).update(seen_at: Sequel::CURRENT_TIMESTAMP)

      # @return [Boolean] see {Lease#anew?}
      def anew? = @lease.anew?

      # It takes nothing more.
      def leave = @lease.sit

      # @return [Array<String>] addresses of those that are there, to this very moment
      def alive = @db[:workers].where(number: Lease.held(@db, Lease::STANDING)).order(:address).select_map(:address)

      # @param show_id [Integer]
      # @return [String, nil] where it runs, or ran last
      def place_of(show_id) = @db[:show_places].where(show_id:).get(:address)

      # @return [Boolean] whether it runs, or ran last, in another one
      def elsewhere?(show_id) = ![nil, address].include?(place_of(show_id))

      # @return [String, nil] where it is to go on, as somebody has asked for
      def wanted_at(show_id) = @db[:show_places].where(show_id:).get(:wanted_at)

      # It runs here from now on.
      #
      # @return [String, nil] where it ran before
      def place(show_id)
        before = place_of(show_id)
        @db[:show_places].insert_conflict(target: :show_id, update: {address:, wanted_at: nil}).insert(show_id:, address:)
        before unless before == address
      end

      # @param address [String] of another worker, where the show is to go on
      # @return [Integer] 0 where it never ran
      def ask_for(show_id, address) = @db[:show_places].where(show_id:).update(wanted_at: address)

      # @return [Hash{Integer => String}] shows that are to go on elsewhere, by what somebody asked for
      def asked_for = @db[:show_places].exclude(wanted_at: nil).select_hash(:show_id, :wanted_at)

      # @return [Hash{Integer => String}] every show that ran once, and where
      def places = @db[:show_places].select_hash(:show_id, :address)

      private

      def entered
        @db.transaction do
          @db.run("LOCK TABLE workers IN EXCLUSIVE MODE")
          forget
          number = @db[:workers].where(address:).get(:number) || ((0...MOST).to_a - @db[:workers].select_map(:number)).first
          raise Error, "There are #{MOST} workers already." unless number

          @db[:workers].insert_conflict(target: :address, update: {seen_at: Sequel::CURRENT_TIMESTAMP}).insert(address:, number:)
          number
        end
      end

      def forget
        long_ago = Sequel.lit("now() - make_interval(secs => ?)", FORGOTTEN_AFTER_S)
        @db[:workers].where { seen_at < long_ago }.exclude(number: Lease.held(@db, Lease::STANDING)).delete
      end
    end
  end
end
