# frozen_string_literal: true

require_relative "../feeds/irc"
require_relative "feed_marks"
require_relative "station"

module Bavard
  module Web
    # What comes in: feeds as lanes; adding, connecting, mapping, taking away.
    class FeedsApp < Station
      get "/" do
        @here = "feeds"
        erb :feeds
      end

      post "/" do
        given = fields("paste", "host", "port", "tls", "channel", "nick", "password", "name")
        read = Feeds::Irc.read(given)
        read[:name] = given["name"].strip[0, 60] unless given["name"].strip.empty?
        shape, colour = FeedMarks.next(site.house.feeds.of_show(@record.id))
        feed = site.house.feeds.create(@record.id, kind: Feeds::Irc::KIND, shape:, colour:, **read)
        ask { |show| show.add_feed(feed) }
        json(id: feed.id)
      end

      post("/:feed/connect") { on_lane { |show, feed_id| show.want_feed(feed_id, true) } }
      post("/:feed/disconnect") { on_lane { |show, feed_id| show.want_feed(feed_id, false) } }
      post("/:feed/remove") { on_lane { |show, feed_id| show.remove_feed(feed_id) } }

      post "/:feed/put-back" do
        feed = site.house.feeds.put_back(@record.id, id(params[:feed])) or not_found
        ask { |show| show.add_feed(feed) }
        json(done: true)
      end

      get "/:feed/mapping" do
        feed_id = id(params[:feed])
        feed = ask { |show| show.lane(feed_id).feed }
        document = Feeds::Irc::Mapping.new(feed.mapping).document
        json(name: feed.name, address: Feeds::Irc.address_of(feed).to_s, entries: Feeds::Irc::Mapping::LABELS.map do |entry, label|
          {entry:, label:, keys: document.fetch(entry).join(entry == "off_topic" ? ", " : " ")}
        end)
      end

      post "/:feed/mapping" do
        mapping = Feeds::Irc::Mapping.read(fields(*Feeds::Irc::Mapping::DEFAULT.keys))
        on_lane { |show, feed_id| show.map_feed(feed_id, mapping) }
      end

      helpers do
        # Does something with one of this show's feeds.
        def on_lane
          feed_id = id(params[:feed])
          ask { |show| yield show, show.lane(feed_id).id }
          json(done: true)
        end
      end
    end
  end
end
