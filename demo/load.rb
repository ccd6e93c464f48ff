# frozen_string_literal: true

require "argon2"
require "json"
require "securerandom"
require_relative "../lib/bavard/core/stage/edit"
require_relative "../lib/bavard/core/cues/settings"
require_relative "../lib/bavard/feeds/described"
require_relative "../lib/bavard/feeds/platform"
require_relative "../lib/bavard/store/cast"
require_relative "../lib/bavard/store/dress"
require_relative "../lib/bavard/store/feeds"
require_relative "../lib/bavard/store/fellows"
require_relative "../lib/bavard/store/files"
require_relative "../lib/bavard/store/left_out"
require_relative "../lib/bavard/store/secret_box"
require_relative "../lib/bavard/store/shows"
require_relative "../lib/bavard/store/stages"
require_relative "files"
require_relative "stages"

module Bavard
  module Demo
    # Puts the demo show into an empty database: Reedmere Dawn Watch, a feed of each stand-in, five stages.
    class Load
      EMAIL = "odalys@reedmere.example"
      CHANNEL = "#reedmere"
      WORDS = %w[amber birch brook cedar clover delta ember fern gorse hazel heron island juniper kelp lichen meadow nettle osier
        pebble quarry reed sedge thistle umber valley willow yarrow].freeze
      RUSH = {"floods" => {"on" => true, "lines" => 3}, "repeats" => {"times" => 2}}.freeze
      FAMILY = {"links" => {"action" => "drop"}, "stopped_words" => {"action" => "drop"}}.freeze
      OVERLAYS = %w[sparkle].freeze
      SHELVES = {
        "Reedmere’s own" => %w[wren owl egg nestbox heron puffin goose reed snipe teal dawn peek otter feather ring heart tea sparkle],
        "Marsh pack" => %w[robin bluetit finch warbler starling swallow egret avocet crane mallard pochard birdhouse
          plume vole drop mist wave moss eye net map moon boat bob wren]
      }.freeze
      CAST = {"odalys" => "#f3b634", "ibrahim" => "#8fc0ea", "sunniva" => "#9fd39a", "teo" => "#e9a0bd"}.freeze
      # Sounds with their shelf, and what some cues play besides their words.
      SOUNDS = {"ring" => "Small", "drop" => "Small", "call" => "Birds", "dawn" => "Large"}.freeze
      CUES = {
        "follow" => {"sound" => "drop", "volume" => 60},
        "subscription" => {"sound" => "ring", "flurry_count" => 12, "flurry_way" => "fountain", "flurry_emotes" => ":nestbox: :egg:"},
        "renewal" => {"sound" => "call", "flurry_count" => 12, "flurry_way" => "drift", "flurry_emotes" => ":wren: :heart:", "held" => "sway"},
        "gift" => {"sound" => "ring"}, "tip" => {"sound" => "ring", "held" => "beat"},
        "visit" => {"sound" => "dawn", "flurry_count" => 30, "flurry_way" => "burst", "flurry_from" => "middle", "length_s" => 8}
      }.freeze
      FELLOWS = {
        "Saltpan Hide" => ["avocet", {words: "Waders at high tide, every Sunday", last_shown: "Knots by the thousand", followers: 2140}],
        "heron_house" => ["heron", {words: "One nest, one camera, all spring", last_shown: "Third egg", followers: 618}]
      }.freeze
      PHRASES = {"reed warbler" => "warbler", "early bird" => "robin"}.freeze

      # @param platforms [Start::Standins, nil] nil without them
      def initialize(db, data, platforms)
        @db = db
        @data = data
        @platforms = platforms
      end

      def load
        create if @db[:accounts].empty?
        move_feeds if @platforms
        self
      end

      # @return [Array<Array(String, String)>] names and tokens of the demo show's stages
      def air_links
        show = @db[:shows].where(account_id: @db[:accounts].where(email: EMAIL).select(:id)).select(:id)
        stages = Store::Stages.new(@db, box)
        @db[:shows].where(id: show).select_map(:id).flat_map { |id| stages.of_show(id) }.map { |stage| [stage.name, stage.token] }
      end

      # @return [String] what to sign in with
      def sign_in
        hash = @db[:accounts].where(email: EMAIL).get(:password_hash)
        return "with your own account" unless hash
        return "#{EMAIL}  #{password}" if File.exist?(word_file) && Argon2::Password.verify_password(password, hash)

        "#{EMAIL}  with the password you chose"
      end

      private

      def box = @box ||= Store::SecretBox.new(@data.feeds_key)

      # All of it or nothing: a start that is cut off, or whose pictures fail, leaves an empty database to begin with again.
      def create
        @files = Files.new(@data).make
        File.write(word_file, Array.new(4) { WORDS[SecureRandom.random_number(WORDS.size)] }.join("-"), perm: 0o600)
        @db.transaction { create_show }
      end

      def create_show
        account_id = @db[:accounts].insert(email: EMAIL, operator: true, password_hash: Argon2::Password.create(password))
        shows = Store::Shows.new(@db)
        show = shows.create(account_id, name: "Reedmere Dawn Watch", host_name: "Odalys Fenn")
        create_gate(shows, show)
        Stages::ALL.each { |stage| create_stage(show, stage) }
        create_shelves(show)
        create_cast(show)
        create_fellows(show)
        create_cues(shows, show, create_sounds(show))
        create_feeds(show) if @platforms
      end

      # Words and sites of the observatory, a second set for a rush, and a few seconds in which somebody may pull a line.
      def create_gate(shows, show)
        calm = show.gate["sets"].first
        set = {"stopped_words" => {"starters" => ["english"], "words" => "nestlings\negg thief\nsell* eggs"},
               "links" => {"on" => true, "sites" => "reedmere.example"}}
        rules = calm["rules"].map { |rule| rule.merge(set.fetch(rule["id"], {})) }
        rush, family = [RUSH, FAMILY].map { |more| rules.map { |rule| rule.merge(more.fetch(rule["id"], {})) } }
        sets = [calm.merge("rules" => rules), {"name" => "Rush", "rules" => rush}, {"name" => "Family hour", "rules" => family}]
        shows.keep_gate(show.id,
          show.gate.merge("sets" => sets, "hold" => {"ms" => 4000, "by_role" => {"host" => 0, "moderator" => 0}, "leaves_after_ms" => 120_000}))
        Store::LeftOut.new(@db).add(show.id, Core::Gate::LeftOut::Entry.new("egg_thief"), (Time.now.to_r * 1000).to_i, "Odalys Fenn")
      end

      def create_stage(show, stage)
        width, height = stage[:size]
        document = stage[:pieces].reduce(Core::Stage::Document.empty(width:, height:)) { |one, piece| with_piece(one, *piece) }
        stages = Store::Stages.new(@db, box)
        made = stages.create(show.id, name: stage[:name], document:, backdrop: stage[:backdrop])
        stages.put_on_air(made.id, 1, document, (Time.now.to_r * 1000).to_i)
      end

      def with_piece(document, kind, values, look = nil)
        id = Core::Stage::Document.free_id(document, kind)
        edits = [{"do" => "add", "kind" => kind, "values" => values}]
        edits << {"do" => "look", "piece" => id, "set" => Core::Pieces::LookDocument.shipped.fetch(look)["set"]} if look
        Core::Stage::Edit.apply(document, {"do" => "many", "edits" => edits}).document
      end

      # The demo's emotes on two shelves, and two phrases.
      def create_shelves(show)
        SHELVES.each { |name, emotes| create_shelf(show, name, emotes) }
        PHRASES.each { |words, emote| dress.add_phrase(show.id, words, @files.emotes.fetch(emote).id) }
      end

      def create_shelf(show, name, emotes)
        taken = emotes.map do |emote|
          made = @files.emotes.fetch(emote)
          {"code" => ":#{emote}:", "picture" => made.id, "width" => made.width, "height" => made.height, "frames" => made.frames,
           "overlay" => OVERLAYS.include?(emote)}
        end
        dress.put_on_shelf(dress.add_shelf(show.id, name), taken, (Time.now.to_r * 1000).to_i)
      end

      def dress = @dress ||= Store::Dress.new(@db)

      # @return [Hash{String => String}] their ids by name
      def create_sounds(show)
        files = Store::Files.new(@db)
        SOUNDS.to_h do |name, shelf|
          made = @files.sounds.fetch(name)
          kept = Store::Files::Kept.new(id: made.id, kind: "sound", name: name.capitalize, bytes: File.size(Files.sound(name)),
            more: made.to_h.except(:id).merge(shelf:).transform_keys(&:to_s))
          [name, files.keep(show.id, kept, (Time.now.to_r * 1000).to_i).id]
        end
      end

      # Each with one of the emotes as a picture.
      def create_fellows(show)
        FELLOWS.each do |name, (emote, more)|
          Store::Fellows.new(@db).add(show.id, name:, picture: @files.cards.fetch(emote).id, **more)
        end
      end

      def create_cues(shows, show, sounds)
        document = Core::Cues::Settings.default
        cues = document["cues"].map do |cue|
          more = CUES.fetch(cue["kind"], {})
          cue.merge(more, more["sound"] ? {"sound" => sounds.fetch(more["sound"])} : {})
        end
        large = Core::Cues::Cue.build("cue_large", "kind" => "tip", "name" => "A large tip", "amount_from" => 50, "words" => "{name} gave {amount}!",
          "length_s" => 9, "importance" => 6, "sound" => sounds.fetch("dawn"), "flurry_count" => 40, "flurry_way" => "fall", "held" => "beat")
        shows.keep_cues(show.id, document.merge("cues" => cues.push(large)))
      end

      # The people of "The hides" with faces and pictures for what they do.
      def create_cast(show)
        cast = Store::Cast.new(@db)
        CAST.each { |key, colour| create_member(cast, show.id, key, colour) }
      end

      def create_member(cast, show_id, key, colour)
        cast.seen(show_id, "hidewire", key, key.capitalize, (Time.now.to_r * 1000).to_i)
        id = @db[:cast_members].where(show_id:, key:).get(:id)
        states = Core::Voice::Portrait::STATES.to_h { |state| [state, @files.faces.fetch("#{key}_#{state}").id] }
        cast.keep(show_id, id, face: @files.faces.fetch(key).id, states:, colour:, host: key == "odalys")
      end

      # Oxbow and Skein read at once; Lantern waits for today's number, as it does every day.
      def create_feeds(show)
        feeds = Store::Feeds.new(@db, box)
        Feeds::Platform.all(@platforms.file).each_value do |platform|
          feeds.create(show.id, **platform.to_h.slice(:kind, :name, :shape, :colour), platform: platform.key, address: address(platform.key))
        end
      end

      # The stand-ins may listen elsewhere than last time.
      def move_feeds
        @db[:feeds].where(platform: "oxbow").each do |row|
          # As earlier versions kept it, with addresses of where it stood.
          mapping = row[:mapping].to_h.except("emote_address", "badge_address")
          @db[:feeds].where(id: row[:id]).update(mapping: Sequel.pg_jsonb(mapping), address: Sequel.pg_jsonb(address("oxbow")))
        end
      end

      def address(key)
        case key
        when "oxbow" then {"host" => "127.0.0.1", "port" => @platforms.ports["irc"], "tls" => false, "channel" => CHANNEL, "nick" => nil}
        when "lantern" then {"number" => nil, "channel" => nil}
        when "hidewire" then {"room" => "hides", "follow" => nil}
        else {"room" => "reedmere"}
        end
      end

      def password = File.read(word_file)
      def word_file = @data.path("sign-in.txt")
    end
  end
end
