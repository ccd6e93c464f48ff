# frozen_string_literal: true

require "json"
require "set"
require "tmpdir"
require "zip"
require_relative "../../error"
require_relative "../../fair/turns"
require_relative "../../feeds/described"
require_relative "../../now_and_then"
require_relative "imports"
require_relative "wardrobe"

module Bavard
  module Live
    # Sets of emotes that described platforms hand out, on their way onto shelves: the list is asked for, pictures that are new are fetched,
    # and all of it goes the way of a pack. Lists are asked for again by themselves.
    class SetImports
      RENEW_EVERY_S = 600
      OLD_MS = 6 * 3_600_000
      AT_ONCE = 2
      # Of all pictures of one set together.
      MOST_BYTES = 200 * 1024 * 1024
      NOTHING_NEW = "nothing new"
      NOT_WANTED = "It is not wanted any more."

      # @param means [Means]
      # @param imports [Imports]
      # @param fetcher [Pictures::Fetcher]
      # @param shows [Shows]
      def initialize(means, imports, fetcher, shows)
        @means = means
        @sets = means.stores.emote_sets
        @dress = means.stores.dress
        @imports = imports
        @fetcher = fetcher
        @shows = shows
        @turns = Fair::Turns.new(at_once: AT_ONCE)
        @lock = Mutex.new
        @waiting = Set.new
      end

      def start
        @renewing = NowAndThen.new("emote-sets", RENEW_EVERY_S) { renew }.start
        self
      end

      def stop = @renewing&.stop

      # As it is when its turn comes; until then nobody else needs to wait for that.
      #
      # @param kept [Store::EmoteSets::Kept]
      # @return [Thread, nil] nil where one waits already
      def bring(kept)
        place = [kept.feed_id, kept.name]
        return unless @lock.synchronize { @waiting.add?(place) }

        Thread.new { @turns.take(kept.show_id, patient: true) { begin_with(place) } }.tap { |thread| thread.name = "emote-set" }
      end

      private

      # What a show wears that sleeps is looked at once it is awake.
      def renew = @sets.older_than(@means.clock.call - OLD_MS).each { |kept| bring(kept) if @shows[kept.show_id] }

      def begin_with(place)
        @lock.synchronize { @waiting.delete(place) }
        @sets.wanted(*place)&.then { |kept| read(kept) }
      rescue StandardError => error
        @means.log.error("a set of emotes could not be looked at", error)
      end

      def read(kept)
        @sets.keep(kept.id, read_at_ms: @means.clock.call)
        emotes, others = listed(kept)
        list = emotes.map { |emote| [emote.code, emote.picture] }
        return said(kept, NOTHING_NEW) if kept.shelf_id && list.sort == kept.list.sort

        pack(kept, emotes.reject { |emote| kept.shelf_id && kept.list.include?([emote.code, emote.picture]) }, list, others)
      rescue Error => error
        said(kept, error.message)
      rescue StandardError => error
        @means.log.error("a set of emotes failed", error)
        said(kept, "Something went wrong on our side.")
      end

      # @return [Array(Array<Feeds::Described::EmoteSet::Emote>, Integer)]
      def listed(kept)
        feed = @means.stores.feeds.find(kept.feed_id) or raise Error, "Its feed is gone."
        platform = @shows.run(kept.show_id).platforms[feed.platform]
        sets = platform&.description ? platform.description.sets : []
        set = sets.find { |one| one.name == kept.name } or raise Error, "Its description has no such set any more."
        ask(Feeds::Described.clients(feed, platform), set)
      end

      def ask(clients, set)
        answer = clients.ask(set.ask, {})
        raise Error, "It answered #{answer.status} where the list was asked for." unless answer.status == 200

        set.of(answer.body)
      rescue Feeds::HttpClient::Unreachable, Feeds::HttpClient::Nonsense => error
        raise Error, error.message
      ensure
        clients.close
      end

      def pack(kept, emotes, list, others)
        folder = Dir.mktmpdir("bavard-set")
        path = File.join(folder, "set.zip")
        missing = zip(path, emotes)
        return take_off(kept, list, folder) if emotes.empty?

        target = Imports::Target.new(->(_name, count) { shelf(kept, count) }, lambda { |shelf_id, words|
          done(kept, shelf_id, list, missing + others, words)
        }, false)
        @imports.begin(kept.show_id, ["pack", path], folder:, target:)
      end

      # @return [Integer] how many of the pictures cannot be fetched
      def zip(path, emotes)
        bytes = missing = 0
        Zip::File.open(path, create: true) do |zip|
          named = emotes.each_with_index.filter_map do |emote, index|
            picture = bytes < MOST_BYTES ? fetched(emote.picture) : nil
            next (missing += 1) && nil unless picture

            bytes += picture.bytesize
            zip.get_output_stream(index.to_s) { |entry| entry.write(picture) }
            {"code" => emote.code, "file" => index.to_s, "overlay" => emote.overlay}
          end
          zip.get_output_stream("manifest.json") do |entry|
            entry.write(JSON.generate("format" => "bavard/shelf@1", "name" => "Set", "emotes" => named))
          end
        end
        missing
      end

      def fetched(address)
        @fetcher.get(address)
      rescue Error
        nil
      end

      def shelf(kept, count)
        @means.stores.ceilings.room(kept.show_id, "emotes", count)
        now = @sets.find(kept.id) or raise Error, NOT_WANTED
        now.shelf_id || new_shelf(kept)
      end

      # It is the set's before anything stands on it: whoever wants the set no more takes it along.
      def new_shelf(kept)
        @means.stores.ceilings.room(kept.show_id, "shelves")
        feed = @means.stores.feeds.find(kept.feed_id)
        shelf_id = @dress.add_shelf(kept.show_id, "#{feed&.name}: #{kept.name}")
        return shelf_id if @sets.keep(kept.id, shelf_id:) == 1

        @dress.keep_shelf(kept.show_id, shelf_id, removed_at_ms: @means.clock.call)
        raise Error, NOT_WANTED
      end

      def done(kept, shelf_id, list, others, words)
        words += "; #{others} could not be taken" if others.positive?
        @sets.keep(kept.id, list:, said: words)
        only(kept, shelf_id, list)
        wear(kept, shelf_id, words)
      end

      # Nothing came, but some went.
      def take_off(kept, list, folder)
        FileUtils.rm_rf(folder)
        @sets.keep(kept.id, list:, said: NOTHING_NEW)
        return unless kept.shelf_id

        only(kept, kept.shelf_id, list)
        wear(kept, kept.shelf_id, NOTHING_NEW)
      end

      def only(_kept, shelf_id, list) = @dress.only_codes(shelf_id, list.map(&:first))

      def wear(kept, shelf_id, words)
        @dress.keep_shelf(kept.show_id, shelf_id, said: words, read_at_ms: @means.clock.call)
        contents = Wardrobe.load(@dress, kept.show_id)
        @shows[kept.show_id]&.ask { |show| show.dress(contents) }
      end

      def said(kept, words) = @sets.keep(kept.id, said: words)
    end
  end
end
