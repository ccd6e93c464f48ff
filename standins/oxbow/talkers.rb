# frozen_string_literal: true

module Oxbow
  # The demo's viewers, talking by themselves at a set pace.
  class Talkers
    attr_accessor :per_minute

    # @param chatter [Array<Array(String, String)>] login and text
    def initialize(channel, chatter, per_minute:)
      @channel = channel
      @chatter = chatter
      @per_minute = per_minute
      @next = 0
    end

    def start
      Thread.new { run }
    end

    # Says one line as one of the viewers.
    def say(login, text)
      viewer = @channel.viewers.find { |known| known["login"] == login }
      @channel.say(login, text, tags: viewer ? @channel.tags_of(viewer) : {})
    end

    private

    def run
      loop do
        if per_minute.positive?
          say(*@chatter[@next % @chatter.size])
          @next += 1
          sleep(60.0 / per_minute * (0.6 + (rand * 0.8)))
        else
          sleep 0.5
        end
      end
    end
  end
end
