# frozen_string_literal: true

require "minitest"
require "socket"
require_relative "../lib/bavard/core/pieces/kinds/chat"
require_relative "../lib/bavard/store/feeds"
require_relative "../lib/bavard/store/secret_box"
require_relative "../lib/bavard/store/shows"
require_relative "../lib/bavard/store/stages"
require_relative "../test/support/processes"

module Bench
  # An IRC server with nobody in it but us: what it writes is what is typed, and when.
  class Typist
    attr_reader :port

    def initialize
      @server = TCPServer.new("127.0.0.1", 0)
      @port = @server.addr[1]
      @readers = Queue.new
      @thread = Thread.new { loop { welcome(@server.accept) } }
    end

    # @return [Integer] microseconds of the sender's clock, taken right before the write
    def say(text, id: nil)
      send("#{"@msgid=#{id} " if id}:ann!a@b PRIVMSG #dawn :#{text}")
    end

    # Deletes a line by its id.
    def delete(id)
      send(":op!o@h REDACT #dawn #{id}")
    end

    # A line of the protocol, as it is.
    def pass_on(line) = send(line)

    def stop
      @thread.kill
      @server.close
    end

    private

    def send(line)
      @reader = @readers.pop until @readers.empty? && @reader && !@reader.closed?
      at_us = Process.clock_gettime(Process::CLOCK_REALTIME, :microsecond)
      @reader.write("#{line}\r\n")
      at_us
    end

    def welcome(client)
      client.setsockopt(Socket::IPPROTO_TCP, Socket::TCP_NODELAY, 1)
      Thread.new do
        nick = nil
        while (line = client.gets)
          word, argument = line.split
          nick = argument if word == "NICK"
          client.write(":min 421 * CAP :?\r\n") if word == "CAP"
          client.write(":min 001 #{nick} :Welcome\r\n") if word == "USER"
          next unless word == "JOIN"

          client.write(":#{nick}!u@h JOIN #dawn\r\n")
          @readers << client
        end
      rescue SystemCallError, IOError
        nil
      ensure
        # Whoever begins anew comes again.
        client.close
      end
    end
  end

  # The application with one show: one feed, one stage that is on air.
  class Scene
    attr_reader :app, :typist, :token

    # @param chat [Hash] how the chat piece differs from what it begins as
    def initialize(**chat)
      TestDatabase.clean if TestDatabase.db
      @typist = Typist.new
      @chat = {"x" => 60, "y" => 400, "width" => 800, "height" => 600}.merge(chat.transform_keys(&:to_s))
      seed
      @app = RunningApp.new.start
    end

    def link = "#{app.address}/air/#{token}"
    def socket_path = "/air/#{token}/live"

    def stop
      app.stop
      typist.stop
    end

    # Somebody who can sign in.
    def add_host(password)
      TestDatabase.db[:accounts].update(password_hash: Argon2::Password.create(password, t_cost: 1, m_cost: 8))
    end

    # So many pieces of text more, in a grid; before anything runs that has read the stage.
    def add_pieces(count)
      return if count.zero?

      app.stop
      texts = Array.new(count) do |index|
        Bavard::Core::Pieces::TextPiece.build("text#{index + 1}", "x" => 20 + (index % 10 * 188), "y" => 20 + (index / 10 * 170), "width" => 170,
          "height" => 120, "text_size_px" => 24)
      end
      stages = Bavard::Store::Stages.new(TestDatabase.db)
      stage = stages.by_token(token)
      stages.keep_draft(stage.id, stage.draft.merge("pieces" => texts + stage.draft["pieces"]))
      app.start
    end

    private

    def seed
      db = TestDatabase.db
      account_id = db[:accounts].insert(email: "bench@reedmere.example", password_hash: "none")
      shows = Bavard::Store::Shows.new(db)
      show = shows.create(account_id, name: "Bench", host_name: "Bench")
      # What is measured here is the way of a line, and all of them say much the same.
      shows.keep_gate(show.id, show.gate.merge("sets" => [{"name" => "Bench", "rules" => []}]))
      address = {"host" => "127.0.0.1", "port" => typist.port, "tls" => false, "channel" => "#dawn", "nick" => nil}
      Bavard::Store::Feeds.new(db, Bavard::Store::SecretBox.new("k" * 32))
        .create(show.id, kind: "irc", name: "Bench", shape: "circle", colour: "#5fb8d6", address:)
      stages = Bavard::Store::Stages.new(db)
      piece = Bavard::Core::Pieces::ChatPiece.build("chat1", @chat)
      document = Bavard::Core::Stage::Document.empty.merge("pieces" => [piece])
      stage = stages.create(show.id, name: "Bench", document:)
      stages.put_on_air(stage.id, 1, document, 1)
      @token = stage.token
    end
  end

  # The floor: a script that does nothing but pass on what it reads, in the application's place.
  Bare = Struct.new(:typist, :port) do
    def self.open
      typist = Typist.new
      port = Bavard::Start::Ports.spare
      process = IO.popen(["ruby", File.join(__dir__, "bare_relay.rb"), typist.port.to_s, port.to_s])
      process.gets
      yield new(typist, port)
    ensure
      Process.kill("KILL", process.pid) if process
      typist&.stop
    end
  end
end
