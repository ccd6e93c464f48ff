# frozen_string_literal: true

require "argon2"
require "json"
require "securerandom"
require_relative "../lib/bavard/core/stage/chat_piece"
require_relative "../lib/bavard/core/stage/document"
require_relative "../lib/bavard/store/feeds"
require_relative "../lib/bavard/store/secret_box"
require_relative "../lib/bavard/store/shows"
require_relative "../lib/bavard/store/stages"

module Bavard
  module Demo
    # Puts the demo show into an empty database: Reedmere Dawn Watch, a feed of the stand-in Oxbow, two stages.
    class Load
      EMAIL = "odalys@reedmere.example"
      CHANNEL = "#reedmere"
      WORDS = %w[amber birch brook cedar clover delta ember fern gorse hazel heron island juniper kelp lichen meadow nettle osier
        pebble quarry reed sedge thistle umber valley willow yarrow].freeze
      STAGES = [
        {name: "Dawn wide", size: [1920, 1080], backdrop: "dawn",
         chat: {"x" => 67, "y" => 438, "width" => 795, "height" => 585, "size_px" => 31, "weight" => 600}},
        {name: "Ringing table", size: [795, 585], backdrop: "table",
         chat: {"x" => 24, "y" => 24, "width" => 747, "height" => 537, "size_px" => 27, "face" => "Bitter", "plate_opacity" => 84}}
      ].freeze

      # @param ports [Hash, nil] where the stand-ins listen; nil without them
      def initialize(db, data, ports)
        @db = db
        @data = data
        @ports = ports
      end

      def load
        create if @db[:accounts].empty?
        move_feed if @ports
        self
      end

      # @return [String] what to sign in with
      def sign_in
        hash = @db[:accounts].where(email: EMAIL).get(:password_hash)
        return "with your own account" unless hash
        return "#{EMAIL}  #{password}" if File.exist?(word_file) && Argon2::Password.verify_password(password, hash)

        "#{EMAIL}  with the password you chose"
      end

      private

      def create
        File.write(word_file, Array.new(4) { WORDS[SecureRandom.random_number(WORDS.size)] }.join("-"), perm: 0o600)
        account_id = @db[:accounts].insert(email: EMAIL, password_hash: Argon2::Password.create(password))
        shows = Store::Shows.new(@db)
        show = shows.create(account_id, name: "Reedmere Dawn Watch", host_name: "Odalys Fenn")
        shows.keep_gate(show.id, show.gate.merge("left_out" => {"on" => true, "names" => ["mere_clock"]}))
        STAGES.each { |stage| create_stage(show, stage) }
        create_feed(show) if @ports
      end

      def create_stage(show, stage)
        width, height = stage[:size]
        document = Core::Stage::Document.empty(width:, height:)
        document = document.merge("pieces" => [Core::Stage::ChatPiece.build("chat1", stage[:chat])])
        stages = Store::Stages.new(@db)
        made = stages.create(show.id, name: stage[:name], document:, backdrop: stage[:backdrop])
        stages.put_on_air(made.id, 1, document, (Time.now.to_r * 1000).to_i)
      end

      def create_feed(show)
        feeds = Store::Feeds.new(@db, Store::SecretBox.new(@data.key("feeds")[0, 32]))
        feeds.create(show.id, kind: "irc", name: "Oxbow", shape: "circle", colour: "#5fb8d6", address:)
      end

      # The stand-in may listen elsewhere than last time.
      def move_feed
        @db[:feeds].where(name: "Oxbow").where(Sequel.lit("address->>'host' = '127.0.0.1' AND address->>'channel' = ?", CHANNEL))
          .update(address: Sequel.pg_jsonb(address))
      end

      def address
        {"host" => "127.0.0.1", "port" => @ports["irc"], "tls" => false, "channel" => CHANNEL, "nick" => nil}
      end

      def password = File.read(word_file)
      def word_file = @data.path("sign-in.txt")
    end
  end
end
