# frozen_string_literal: true

require_relative "../../../feeds/microphones"
require_relative "feed_marks"

module Bavard
  module Web
    # The links by which microphones come into a room: made, handed out, taken back; and the host's own microphone. For the Feeds station.
    module MicrophoneLinks
      # @param app [Class]
      def self.registered(app)
        app.helpers Helpers
        rooms(app)
        links(app)
        # The host's own, at the prompter: in the first room of microphones there is, or in one that is made.
        app.post("/microphones/mine") { json(path: "/mic/#{own_microphone.token}") }
      end

      def self.rooms(app)
        app.get("/:feed/microphones") { json(links_of(microphones)) }

        # Somebody of the cast, who keeps what they wear, or somebody by a name.
        app.post "/:feed/microphones" do
          feed = microphones
          member = params["member"] && member_called(id(params["member"]))
          add_microphone(feed, member ? member.short || member.name : text(params["name"]), member)
          json(links_of(feed))
        end

        app.post("/:feed/microphones/anybody") { json(links_of(microphones.tap { |feed| let_anybody(feed, params["on"] == "1") })) }
      end

      def self.links(app)
        app.post("/:feed/microphones/:link/anew") { on_link { |feed, link| site.stores.microphones.renew(feed.id, link.id) } }
        app.post "/:feed/microphones/:link/remove" do
          on_link do |feed, link|
            site.stores.microphones.remove(feed.id, link.id)
            ask { |show| show.lanes[feed.id]&.connection&.put_out(link.key) } if link.key
          end
        end
      end
      private_class_method :rooms, :links

      # See above.
      module Helpers
        # @return [Store::Feeds::Feed]
        def microphones = feed_of(id(params[:feed])).then { |feed| feed.kind == Feeds::Microphones::KIND ? feed : not_found }

        def links_of(feed)
          links = site.stores.microphones.of_feed(feed.id)
          anybody = links.find(&:anybody?)
          there = ask { |show| show.voices.rooms[feed.id]&.members.to_a.map(&:key) }
          {name: feed.name, anybody: anybody && address_of(anybody), cast: cast_left(links),
           people: links.reject(&:anybody?).map { |link| {id: link.id, name: link.name, link: address_of(link), there: there.include?(link.key)} }}
        end

        def member_called(member_id) = site.stores.cast.of_show(@record.id).find { |one| one.id == member_id } || not_found

        def address_of(link) = "#{request.base_url}/mic/#{link.token}"

        # Those of the cast who have no link here yet.
        def cast_left(links)
          names = links.map(&:name)
          site.stores.cast.of_show(@record.id).reject { |member| names.include?(member.short || member.name) }
            .map { |member| [member.id, member.short || member.name] }
        end

        # @param member [Core::Voice::CastMember, nil] what they wear in other rooms they wear here as well
        # @return [Store::Microphones::Link]
        def add_microphone(feed, name, member = nil, **more)
          name = name.gsub(/[[:space:]]+/, " ").strip[0, Feeds::Microphones::LONGEST_NAME]
          raise Error.new("Whose microphone is it? A name tells it apart.", field: "name") if name.empty?

          site.stores.microphones.add(feed.id, name:, **more).tap { |link| wear(feed, link, member) if member }
        end

        def wear(feed, link, member)
          cast = site.stores.cast
          service = Live::Voices.service_of(feed)
          cast.seen(@record.id, service, link.key, link.name, site.clock.call)
          one = cast.of_show(@record.id).find { |known| [known.service, known.key] == [service, link.key] }
          cast.keep(@record.id, one.id, **member.to_h.slice(:short, :colour, :face, :states))
          members = cast.of_show(@record.id)
          ask { |show| show.voices.members = members }
        end

        def let_anybody(feed, wanted)
          before = site.stores.microphones.of_feed(feed.id).find(&:anybody?)
          site.stores.microphones.for_anybody(feed.id, wanted)
          cut(before) if before && !wanted
        end

        # Does something with a link, after which whoever had it open is cut off.
        def on_link
          feed = microphones
          link = site.stores.microphones.find(feed.id, id(params[:link])) || not_found
          yield feed, link
          cut(link)
          json(links_of(feed))
        end

        def cut(link)
          site.remembered.forget
          site.hub.cut_where { |env| env["bavard.microphone"] == link.id }
        end

        def own_microphone
          feed = site.stores.feeds.of_show(@record.id).find { |one| one.kind == Feeds::Microphones::KIND } || room_of_microphones
          account_id = @visitor.account_id
          known = site.stores.microphones.of_feed(feed.id).find { |link| link.account_id == account_id }
          known || add_microphone(feed, actor, account_id:)
        end

        def room_of_microphones
          feed = NewFeed.new(site, platforms, "kind" => Feeds::Microphones::KIND, "name" => "").create(@record.id)
          ask { |show| show.add_feed(feed) }
          feed
        end
      end
    end
  end
end
