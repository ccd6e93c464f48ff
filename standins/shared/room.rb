# frozen_string_literal: true

require "json"
require "monitor"
require "securerandom"

module StandIns
  # What happened in a made-up chat: lines, events, deletes, people silenced. Everything goes through its monitor.
  class Room
    REMEMBERED = 2000
    # kind: line, delete, silence, or the name of an event; more: whatever else belongs to it
    Post = Struct.new(:seq, :id, :at_ms, :kind, :login, :text, :more)

    include MonitorMixin

    # said: how many lines since the start
    attr_reader :viewers, :live, :ended_at_ms, :number, :said

    # @param viewers [Array<Hash>] login, name, colour, badges
    # @param file [String, nil] where history is kept between two starts
    # @param followers [Integer] how many there were before anything happened here
    def initialize(viewers, file: nil, followers: 4180)
      super()
      @viewers = viewers
      @file = file
      @listeners = []
      @live = true
      @said = 0
      @posts = file && File.exist?(file) ? recall : []
      @totals = {"followers" => followers, "subscriptions" => followers / 20}
      @posts.each { |post| count(post) }
      @number = numbered
    end

    def viewer(login) = viewers.find { |viewer| viewer["login"] == login } || {"login" => login, "name" => login, "colour" => "", "badges" => ""}

    # Told of each post as it is made.
    def listen(&block) = synchronize { @listeners << block }
    def unlisten(block) = synchronize { @listeners.delete(block) }

    # @return [Hash{String => Integer}] how many follow and subscribe in all
    def totals = synchronize { @totals.dup }

    # Told as a post without a number of its own.
    def set_total(what, number)
      synchronize { @totals[what] = number if @totals.key?(what) }
      synchronize { @listeners.dup }.each { |listener| listener.call(Post.new(nil, nil, now_ms, "totals", nil, "", {})) }
    end

    # @return [Post]
    def say(login, text, more = {})
      record("line", login, text, more)
    end

    def event(kind, login, text, more = {}) = record(kind, login, text, more)
    def delete(id) = record("delete", nil, id, {})
    def silence(login) = record("silence", login, "", {})

    # Another broadcast has another number, as every day.
    def live=(on)
      synchronize do
        @ended_at_ms = on ? nil : now_ms
        @number = numbered(SecureRandom.random_number(1000)) if on && !@live
        @live = on
      end
      record(on ? "begin" : "end", nil, "", {})
    end

    # @return [Array<Post>] those after this one
    def after(seq, limit) = synchronize { @posts.select { |post| post.seq > seq }.first(limit) }
    def first_seq = synchronize { @posts.first&.seq || 0 }
    def last_seq = synchronize { @posts.last&.seq || 0 }

    # What its page shows.
    def lines
      synchronize do
        gone = @posts.select { |post| post.kind == "delete" }.to_h { |post| [post.text, true] }
        silenced = @posts.select { |post| post.kind == "silence" }.to_h { |post| [post.login, post.seq] }
        @posts.reject { |post| post.login.nil? || post.kind == "silence" }.last(40)
          .map { |post| line(post, gone.key?(post.id) || post.seq < silenced.fetch(post.login, 0)) }
      end
    end

    private

    def line(post, gone)
      {id: post.id, login: post.login, nick: viewer(post.login)["name"], text: post.text, event: post.kind == "line" ? nil : post.kind, gone:}
    end

    def numbered(offset = 0)
      today = Time.now.strftime("%m%d").to_i
      format("%04d-%04d", 7000 + today, (4392 + offset) % 10_000)
    end

    def record(kind, login, text, more)
      post = synchronize do
        Post.new(last_seq + 1, SecureRandom.alphanumeric(12), now_ms, kind, login, text, more).tap do |made|
          @posts << made
          count(made)
          @said += 1 if kind == "line"
          @posts.shift if @posts.size > REMEMBERED
          File.write(@file, "#{JSON.generate(made.to_a)}\n", mode: "a") if @file
        end
      end
      synchronize { @listeners.dup }.each { |listener| listener.call(post) }
      post
    end

    def count(post)
      @totals["followers"] += 1 if post.kind == "follow"
      @totals["subscriptions"] += post.kind == "gift" ? (post.more || {})["number"].to_i : 1 if %w[subscription renewal gift].include?(post.kind)
    end

    def recall
      File.foreach(@file).map { |line| Post.new(*JSON.parse(line)) }.last(REMEMBERED)
    rescue JSON::ParserError
      []
    end

    def now_ms = (Time.now.to_r * 1000).to_i
  end
end
