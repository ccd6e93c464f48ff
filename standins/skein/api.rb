# frozen_string_literal: true

require "json"
require "rack"
require_relative "client"

module Skein
  # What Skein answers: /v1/stream is its WebSocket, /v1/me says whose permission this is.
  class Api
    def initialize(room, grants, mischief, beat_ms:)
      @room = room
      @grants = grants
      @mischief = mischief
      @beat_ms = beat_ms
      @clients = []
      @lock = Mutex.new
      listen_to(room)
    end

    def clients = @lock.synchronize { @clients.dup }
    def cut = clients.each(&:cut)

    def call(env)
      case env["PATH_INFO"]
      when "/v1/me" then me(env)
      when "/v1/stream" then stream(env)
      end
    end

    private

    def listen_to(room) = room.listen { |post| clients.each { |client| client.post(post) } }

    def me(env)
      token = @grants.token(env)
      return [401, {"content-type" => "application/json"}, ["{}"]] unless token

      [200, {"content-type" => "application/json"},
        [JSON.generate("login" => token.account, "name" => token.account.capitalize, "scopes" => token.scopes)]]
    end

    def client(env) = Client.new(env, env["rack.hijack"].call, @room, @grants, @mischief, beat_ms: @beat_ms)

    def stream(env)
      client = client(env)
      Thread.new do
        @lock.synchronize { @clients << client }
        client.run
      ensure
        @lock.synchronize { @clients.delete(client) }
      end
      [-1, {}, []]
    end
  end
end
