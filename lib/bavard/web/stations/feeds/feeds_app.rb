# frozen_string_literal: true

require_relative "../../../feeds/consent"
require_relative "../../../feeds/irc/mapping"
require_relative "../../../live/intake/feed_kinds"
require_relative "../../../live/intake/trial"
require_relative "feed_marks"
require_relative "microphone_links"
require_relative "new_feed"
require_relative "../all/station"

module Bavard
  module Web
    # What comes in: feeds as lanes; adding, connecting, mapping, taking away, answering.
    class FeedsApp < Station
      FEED_FIELDS = %w[platform kind paste host port tls channel nick password name room follow written jid xmpp_server place
        account account_password xmpp_nick draft_only anyway].freeze

      get "/" do
        @here = "feeds"
        @platforms = platforms.values
        @said = session.delete("feeds_said")
        erb :feeds
      end

      # A feed is tried before it counts, and whether it is there already is asked, unless it is wanted anyway.
      post "/" do
        given = fields(*FEED_FIELDS, *asked)
        new_feed = NewFeed.new(site, platforms, given)
        anyway = given["anyway"] == "1"
        trial = outward { new_feed.try } unless anyway
        halt 422, json(error: trial.words, field: trial.field, anyway: true) if trial && !trial.reached
        twin, feed = add(new_feed, anyway:)
        halt 422, json(error: NewFeed.twice(twin), anyway: true) if twin
        ask { |show| show.add_feed(feed) }
        json(id: feed.id, found: trial&.words, inbox: inbox_of(feed), microphones: feed.kind == Feeds::Microphones::KIND)
      end

      post("/:feed/connect") { on_lane { |show, feed_id| show.want_feed(feed_id, true) } }
      post("/:feed/disconnect") { on_lane { |show, feed_id| show.want_feed(feed_id, false) } }
      post("/:feed/remove") { on_lane { |show, feed_id| show.remove_feed(feed_id) } }

      post "/:feed/put-back" do
        room("feeds")
        feed = site.stores.feeds.put_back(@record.id, id(params[:feed])) or not_found
        ask { |show| show.add_feed(feed) }
        json(done: true)
      end

      post "/:feed/draft-only" do
        alone = params["on"] == "1"
        on_lane { |show, feed_id| show.lane(feed_id).draft_only = alone }
      end

      # Another place that it reads from now on. Tried before it counts, as at first, unless it is wanted anyway, or only somebody who was
      # let in would find it.
      post "/:feed/address" do
        feed = feed_of(id(params[:feed]))
        platform = described_by(feed)
        not_found if platform.nil? || platform.description.irc?
        address = Feeds::Described.address(fields(*asked), platform, Feeds::Described.secrets(feed))
        trial = params["anyway"] == "1" || feed.permission ? nil : tried(feed, platform, address)
        halt 422, json(error: trial.words, anyway: true) if trial && !trial.reached
        ask { |show| show.change_feed(feed.id) { |lane| lane.readdress(address) } }
        json(done: true, found: trial&.words)
      end

      get "/:feed/mapping" do
        feed = feed_of(id(params[:feed]))
        described = described_by(feed)
        json(name: feed.name, address: Feeds::Irc.address_of(feed, described).to_s, entries: Feeds::Irc.mapping_of(feed, described).entries)
      end

      post "/:feed/mapping" do
        mapping = Feeds::Irc::Mapping.read(fields(*Feeds::Irc::Mapping::DEFAULT.keys))
        described = described_by(feed_of(id(params[:feed])))
        mapping = Feeds::Irc::Mapping.own(mapping, described.mapping) if described
        on_lane { |show, feed_id| show.map_feed(feed_id, mapping) }
      end

      # Where anything else sends to, and what it signs with.
      get("/:feed/inbox") { json(inbox_of(feed_of(id(params[:feed]))) || not_found) }

      # Sets of emotes that its platform hands out: wanted, or not any more.
      get("/:feed/sets") { json(sets: sets_of(feed_of(id(params[:feed])))) }

      post "/:feed/sets/:set" do
        feed = feed_of(id(params[:feed]))
        set = described_sets(feed).find { |one| one.name == text(params[:set]) } || not_found
        params["on"] == "1" ? want_set(feed, set) : leave_set(feed, set)
        json(sets: sets_of(feed))
      end

      # Within how many minutes something has to come there.
      post "/:feed/expects" do
        feed = feed_of(id(params[:feed]))
        not_found unless feed.kind == Feeds::Activities::KIND
        expects = Feeds::Activities.expects(text(params["minutes"]))
        ask { |show| show.change_feed(feed.id) { |lane| lane.readdress(feed.address.merge("expects_minutes" => expects).compact) } }
        json(inbox_of(feed_of(feed.id)))
      end

      # The rooms of a voice service, with who is in them now.
      get "/rooms" do
        platform = platforms[text(params["platform"])]
        not_found unless platform&.kind == Feeds::Voice::KIND
        json(outward { Feeds::Voice.rooms(platform) })
      end

      register MicrophoneLinks

      # Another room, or after another person.
      post "/:feed/room" do
        feed = feed_of(id(params[:feed]))
        not_found unless feed.kind == Feeds::Voice::KIND
        read = Feeds::Voice.read(fields("room", "follow", "written"), platform_of(feed))
        ask { |show| show.change_feed(feed.id) { |lane| lane.readdress(read[:address]) } }
        json(done: true)
      end

      # The platform's own page is asked for permission; its answer comes back to /feeds/granted.
      get "/permission" do
        platform = platforms[text(params["platform"])] || not_found
        feed_id = text(params["feed"])[/\A\d{1,18}\z/]&.to_i
        address, kept = consent(platform).ask(%w[read write])
        session["granting"] = {"state" => kept.state, "verifier" => kept.verifier, "platform" => platform.key, "feed" => feed_id}
        redirect address
      end

      get "/granted" do
        asked = session.delete("granting")
        unless asked && Rack::Utils.secure_compare(asked["state"], text(params["state"]))
          return back("That answer does not belong to a question of ours. Ask for the permission again.")
        end

        platform = platforms[asked["platform"]] || not_found
        return back("#{platform.name} was not given permission. Reading goes on as before.") unless params["code"]

        outward { take_permission(platform, asked) }
      rescue Error => error
        back(error.message)
      end

      post "/:feed/withdraw" do
        feed = feed_of(id(params[:feed]))
        permission = feed.permission or not_found
        outward { consent(platform_of(feed)).give_back(permission) }
        site.stores.permissions.remove(permission.id)
        ask do |show|
          show.lanes.each_value do |lane|
            next unless lane.feed.permission&.id == permission.id

            show.change_feed(lane.id) do
              lane.permission = nil
            end
          end
        end
        json(done: true)
      end

      post "/answer" do
        said = text(params["text"])
        feed_ids = text(params["feeds"]).scan(/\d{1,18}/).map(&:to_i)
        by = actor
        json(answer: ask { |show| show.answer_in_chat(said, feed_ids, by) })
      end

      helpers do
        def session = request.env["rack.session"]

        # Does something with one of this show's feeds.
        def on_lane
          feed_id = id(params[:feed])
          ask { |show| yield show, show.lane(feed_id).id }
          json(done: true)
        end

        def feed_of(feed_id) = ask { |show| show.lane(feed_id).feed }

        def platform_of(feed)
          platforms[feed.platform] || raise(Error, Live::FeedWays::NO_PLATFORM)
        end

        def tried(feed, platform, address)
          outward { NewFeed.try(site, feed.dup.tap { |one| one.address = address }, platform:, permission: nil) }
        end

        def consent(platform)
          Feeds::Consent.new(platform, "#{site.address}/feeds/granted", clock: site.clock)
        end

        def take_permission(platform, asked)
          kept = Feeds::Consent::Kept.new(asked["state"], asked["verifier"])
          permission = site.stores.permissions.keep(@record.id, consent(platform).granted(text(params["code"]), kept))
          asked["feed"] ? give(asked["feed"], permission) : begin_with(platform, permission)
          back("#{platform.name} is connected as #{permission.name}.")
        end

        def give(feed_id, permission)
          platform = platform_of(feed_of(feed_id))
          ask do |show|
            show.change_feed(feed_id) do |lane|
              address = NewFeed.address_of(lane.feed, platform, permission.account)
              lane.permission = permission
              lane.readdress(address) unless address == lane.feed.address
            end
          end
        end

        # @return [Hash{String => Feeds::Platform}] of the list, and those that the host described
        def platforms = show.platforms.all

        # @return [Array<String>] names of what descriptions ask
        def asked
          described = platforms.each_value.select { |platform| platform.description && !platform.description.irc? }
          described.flat_map { |platform| [*platform.description.asks, *platform.description.secrets].map { |ask| Feeds::Described.field(platform, ask) } }
        end

        # @return [Array(Store::Feeds::Feed, nil), Array(nil, Store::Feeds::Feed)] the one that hears the same, or else what was added
        def add(new_feed, anyway: false, permission: nil)
          site.stores.feeds.one_by_one(@record.id) do
            twin = new_feed.twin(@record.id) unless anyway
            [twin, (new_feed.create(@record.id, permission:) unless twin)]
          end
        end

        # A feed that reads the same gets the permission; there is no second one.
        def begin_with(platform, permission)
          read = case platform.kind
                 when Feeds::Voice::KIND then {"room" => Feeds::Voice.rooms(platform)[:rooms].first&.fetch(:id)}
                 when Feeds::Described::KIND then platform.description.asks.first(1).to_h { |ask| [Feeds::Described.field(platform, ask), permission.account] }
                 else {"channel" => permission.account}
          end
          twin, feed = add(NewFeed.new(site, platforms, {"platform" => platform.key, **read}), permission:)
          return ask { |show| show.add_feed(feed) } unless twin

          give(twin.id, permission)
          ask { |show| show.want_feed(twin.id, true) }
        end

        def back(words)
          session["feeds_said"] = words
          redirect "/feeds"
        end

        # @return [Feeds::Platform, nil] that the feed is read by, where it is described
        def described_by(feed) = feed.platform && platforms[feed.platform]&.then { |platform| platform if platform.description }

        def described_sets(feed) = described_by(feed)&.description&.sets || []

        def sets_of(feed)
          kept = site.stores.emote_sets.of_feed(feed.id).to_h { |one| [one.name, one] }
          described_sets(feed).map do |set|
            {name: set.name, label: set.label, on: kept.key?(set.name), said: kept[set.name]&.said, count: kept[set.name]&.list&.size}
          end
        end

        def want_set(feed, set)
          site.set_imports.bring(site.stores.emote_sets.want(@record.id, feed.id, set.name))
        end

        # Its shelf goes with it, and can be put back under Dress.
        def leave_set(feed, set)
          kept = site.stores.emote_sets.leave(feed.id, set.name)
          return unless kept&.shelf_id

          site.stores.dress.keep_shelf(@record.id, kept.shelf_id, removed_at_ms: site.clock.call)
          contents = Live::Wardrobe.load(site.stores.dress, @record.id)
          ask { |show| show.dress(contents) }
        end

        # @return [Hash, nil] of a feed that is sent to
        def inbox_of(feed)
          return unless feed.kind == Feeds::Activities::KIND

          {address: "#{request.base_url}/in/#{feed.address["token"]}", secret: feed.password, expects: feed.address["expects_minutes"], id: feed.id}
        end
      end
    end
  end
end
