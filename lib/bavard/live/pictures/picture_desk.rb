# frozen_string_literal: true

require_relative "../../error"
require_relative "../../fair/queue"
require_relative "../../lasting"
require_relative "../../pictures/fetcher"

module Bavard
  module Live
    # Gets the pictures that platforms and shelves name by their address: fetched, made anew and kept, by a few threads of
    # their own, so that no line ever waits for one; shows in turn, so that none waits for another's flood. What was got is
    # remembered; what was refused is tried again the next day, and what could not be got just now in a minute.
    class PictureDesk
      WORKERS = 4
      # Of one show: what waits, and how many are on their way.
      MOST_WAITING = 1000
      AT_ONCE = 2
      REMEMBERED = 20_000
      AGAIN_AFTER_MS = 86_400_000
      SOON_AGAIN_AFTER_MS = 60_000
      # What can be fetched; other names are of pictures that come themselves.
      WEB = %r{\Ahttps?://}i
      Brought = Struct.new(:address, :bytes)
      private_constant :Brought
      # Of an address that is being fetched.
      ON_ITS_WAY = Float::INFINITY

      # @param fetcher [Pictures::Fetcher]
      # @param workshop [Pictures::Workshop]
      # @param cabinet [Pictures::Cabinet]
      # @param store [Store::Dress]
      def initialize(fetcher:, workshop:, cabinet:, store:, clock:, log:)
        @fetcher = fetcher
        @workshop = workshop
        @cabinet = cabinet
        @store = store
        @clock = clock
        @log = log
        @lock = Mutex.new
        # By address the picture's id, or from when on (milliseconds) it may be asked for again.
        @known = {}
        @listeners = {}
        @queue = Fair::Queue.new(most_of_one: MOST_WAITING, out_of_one: AT_ONCE)
      end

      def start
        told = ->(error) { @log.error("pictures: beginning anew", error) }
        @threads = Array.new(WORKERS) { |number| Lasting.new("pictures-#{number}", told:) { work }.start }
        self
      end

      def stop
        @queue.close
        @threads&.each { |thread| thread.join(0.5) || thread.kill }
        @workshop.stop
      end

      # Told of addresses whose pictures have come, from one of the threads here, until it leaves.
      #
      # @param who [Object]
      def listen(who, &block) = @lock.synchronize { @listeners[who] = block }
      def leave(who) = @lock.synchronize { @listeners.delete(who) }

      # @param address [String]
      # @param owner [Integer] the show that wants it
      # @return [String, nil] the picture's id, or nil while it is not there (yet)
      def at(address, owner)
        @lock.synchronize do
          known = @known[address]
          return known if known.is_a?(String)
          return if known && @clock.call < known

          @known.shift if @known.size >= REMEMBERED
          @known[address] = ON_ITS_WAY
        end
        @queue.push(owner, address) || forget(address)
        nil
      end

      # Takes one that came itself, by whatever name lines call it: it is made anew as all are.
      def bring(address, bytes, owner)
        return if @lock.synchronize { @known[address].is_a?(String) }

        @queue.push(owner, Brought.new(address, bytes))
      end

      # Fetches it now, in the caller's thread.
      #
      # @return [String] the picture's id
      # @raise [Bavard::Error] saying why not
      def get(address, owner, patient: false)
        id = keep(@fetcher.get(address), owner, patient:)
        @lock.synchronize { @known[address] = id }
        @store.keep_address(address, id, nil, @clock.call)
        id
      end

      # Makes a picture of bytes that somebody brought.
      #
      # @return [String] its id
      # @raise [Bavard::Error]
      def keep(bytes, owner, patient: false)
        made = make(bytes, "emote", owner, patient:)
        @store.picture(made, @clock.call)
        made.id
      end

      # As above, but not noted among the emotes.
      #
      # @param purpose [String] of Pictures::Bounds::PURPOSES
      # @return [Pictures::Workshop::Made]
      # @raise [Bavard::Error]
      def make(bytes, purpose, owner, patient: false, watch: Unwatched)
        @cabinet.keep(@workshop.make(bytes, purpose, owner:, patient:, watch:))
      end

      private

      def forget(address) = @lock.synchronize { @known.delete(address) }

      def work
        @queue.each do |owner, wanted|
          address = wanted.is_a?(Brought) ? wanted.address : wanted
          found = try(address) { wanted.is_a?(Brought) ? take(wanted, owner) : find(address, owner) }
          @lock.synchronize { @known[address] = found }
          next unless found.is_a?(String)

          @lock.synchronize { @listeners.values }.each { |listener| listener.call(address) }
        end
      end

      # @return [String, Integer] the picture's id, or from when on to ask again
      def try(address)
        yield
      rescue Pictures::Fetcher::Unreachable => error
        @log.info("picture at #{address[0, 200]}: #{error.message}")
        @clock.call + SOON_AGAIN_AFTER_MS
      rescue Error => error
        refuse(address, error, now_ms = @clock.call)
        now_ms + AGAIN_AFTER_MS
      rescue StandardError => error
        @log.warn("picture at #{address[0, 200]}", error)
        @clock.call + SOON_AGAIN_AFTER_MS
      end

      def find(address, owner)
        known = @store.at_address(address, @clock.call - AGAIN_AFTER_MS)
        return known.first if known&.first && @cabinet.there?(known.first)
        return @clock.call + AGAIN_AFTER_MS if known && known.first.nil?

        WEB.match?(address) ? get(address, owner, patient: true) : @clock.call + SOON_AGAIN_AFTER_MS
      end

      # @return [String] the picture's id
      def take(brought, owner)
        keep(brought.bytes, owner, patient: true).tap { |id| @store.keep_address(brought.address, id, nil, @clock.call) }
      end

      def refuse(address, error, now_ms)
        @log.info("picture at #{address[0, 200]}: #{error.message}")
        @store.keep_address(address, nil, error.message[0, 200], now_ms)
      rescue Sequel::Error => error
        @log.warn("picture at #{address[0, 200]}", error)
      end
    end
  end
end
