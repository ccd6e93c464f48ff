# frozen_string_literal: true

require_relative "../error"

module Bavard
  module Live
    # Gets the pictures that platforms and shelves name by their address: fetched, made anew and kept, by a few threads of
    # their own, so that no line ever waits for one. What was got is remembered; what was refused is tried again the next
    # day.
    class PictureDesk
      WORKERS = 2
      MOST_WAITING = 2000
      REMEMBERED = 20_000
      AGAIN_AFTER_MS = 86_400_000

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
        @known = {}
        @listeners = []
        @queue = Queue.new
      end

      def start
        @threads = Array.new(WORKERS) { |number| Thread.new { work }.tap { |thread| thread.name = "pictures-#{number}" } }
        self
      end

      def stop
        @queue.close
        @threads&.each { |thread| thread.join(0.5) || thread.kill }
        @workshop.stop
      end

      # Told of addresses whose pictures have come, from one of the threads here.
      def listen(&block) = @lock.synchronize { @listeners << block }

      # @param address [String]
      # @return [String, nil] the picture's id, or nil while it is not there (yet)
      def at(address)
        @lock.synchronize do
          return @known[address] || nil if @known.key?(address)

          @known.shift if @known.size >= REMEMBERED
          @known[address] = false
        end
        @queue.size < MOST_WAITING ? @queue << address : forget(address)
        nil
      rescue ClosedQueueError
        nil
      end

      # Fetches it now, in the caller's thread.
      #
      # @return [String] the picture's id
      # @raise [Bavard::Error] saying why not
      def get(address)
        id = keep(@fetcher.get(address))
        @lock.synchronize { @known[address] = id }
        @store.keep_address(address, id, nil, @clock.call)
        id
      end

      # Makes a picture of bytes that somebody brought.
      #
      # @return [String] its id
      # @raise [Bavard::Error]
      def keep(bytes)
        made = make(bytes, "emote")
        @store.picture(made, @clock.call)
        made.id
      end

      # As above, but not noted among the emotes.
      #
      # @param purpose [String] of Pictures::Bounds::PURPOSES
      # @return [Pictures::Workshop::Made]
      # @raise [Bavard::Error]
      def make(bytes, purpose)
        @cabinet.keep(@workshop.make(bytes, purpose))
      end

      private

      def forget(address) = @lock.synchronize { @known.delete(address) }

      def work
        while (address = @queue.pop)
          id = find(address)
          next unless id

          @lock.synchronize { @known[address] = id }
          @lock.synchronize { @listeners.dup }.each { |listener| listener.call(address) }
        end
      rescue ClosedQueueError
        nil
      end

      # @return [String, nil]
      def find(address)
        known = @store.at_address(address, @clock.call - AGAIN_AFTER_MS)
        return known.first if known && (known.first.nil? || @cabinet.there?(known.first))

        get(address)
      rescue Error => error
        @log.info("picture at #{address[0, 200]}: #{error.message}")
        @store.keep_address(address, nil, error.message[0, 200], @clock.call)
        nil
      rescue Sequel::Error, Sequel::DatabaseError, StandardError => error
        @log.warn("picture at #{address[0, 200]}", error)
        forget(address)
        nil
      end
    end
  end
end
