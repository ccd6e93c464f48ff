# frozen_string_literal: true

require_relative "../../../core/palette/colour"
require_relative "../../../core/voice/cast"
require_relative "../all/station"

module Bavard
  module Web
    # The cast: the people of the voice rooms, with their faces and the pictures of what they do. Belongs to Dress.
    class CastApp < Station
      LARGEST_BYTES = Bodies::PICTURES_BYTES
      MOST_FILES = 120
      LONGEST_SHORT = 60
      # What a person has a picture for.
      PICTURES = ["face", *Core::Voice::Portrait::STATES].freeze
      WORDS = {"face" => "Face", "silent" => "Silent", "talking" => "Talking", "loud" => "Loud", "muted" => "Muted", "blink" => "Blink"}.freeze

      get "/" do
        @here = "cast"
        erb :cast
      end

      get("/sheet") { json(members: sheet) }

      # Files named after people and states.
      post "/drop" do
        brought = uploads
        members = site.stores.cast.of_show(@record.id)
        matches = Core::Voice::Cast.match(brought.keys, members)
        matches.select(&:member).group_by(&:member).each do |member, all|
          put(member, all.to_h { |match| [match.state, figure(match.file, brought[match.file])] })
        end
        changed(matched: matches.count(&:member), left: matches.reject(&:member).map(&:file))
      end

      post "/:member" do
        member
        values = {}
        values[:short] = text(params["short"]).strip[0, LONGEST_SHORT].then { |short| short.empty? ? nil : short } if params["short"]
        values[:colour] = colour(text(params["colour"])) if params["colour"]
        values[:host] = params["host"] == "1" if params["host"]
        raise Error.new("What is to change?", field: "member") if values.empty?

        site.stores.cast.keep(@record.id, member.id, **values) ? changed : not_found
      end

      # A picture of one of {PICTURES}: a file, at an address, or none any more.
      post "/:member/pictures/:which" do
        member
        which = text(params[:which])
        not_found unless PICTURES.include?(which)
        put(member, which => picture(params["file"], text(params["address"]).strip))
        changed
      end

      post "/:member/remove" do
        site.stores.cast.remove(@record.id, id(params[:member])) ? changed : not_found
      end

      helpers do
        def member = @member ||= site.stores.cast.of_show(@record.id).find { |one| one.id == id(params[:member]) } || not_found

        def sheet
          there = ask { |show| show.voices.rooms.values.flat_map { |room| room.members.map(&:key) } }
          site.stores.cast.of_show(@record.id).map do |member|
            {**member.to_h.slice(:id, :key, :name, :short, :colour, :host), there: there.include?(member.key),
                                                                            pictures: member.states.merge("face" => member.face).compact,
                                                                            missing: member.states.empty? ? [] : Core::Voice::Cast.missing(member)}
          end
        end

        # The running show draws them at once.
        def changed(answer = {})
          members = site.stores.cast.of_show(@record.id)
          ask { |show| show.voices.members = members }
          json({done: true, members: sheet}.merge(answer))
        end

        def put(member, pictures)
          face = pictures.key?("face") ? pictures.delete("face") : member.face
          states = member.states.merge(pictures).compact
          site.stores.cast.keep(@record.id, member.id, face:, states:)
        end

        def picture(file, address)
          return figure(text(file[:filename]), file[:tempfile].read(LARGEST_BYTES)) if file.is_a?(Hash) && file[:tempfile]
          return if address.empty?

          figure(address, outward { site.fetcher.get(address) })
        rescue Error => error
          raise error if error.field

          raise error.in_words("That picture was not taken: #{error.reason}.", field: "address")
        end

        def uploads
          brought = Array(params["files"]).grep(Hash).select { |file| file[:tempfile] }
          raise Error.new("Drop pictures, up to #{MOST_FILES} at once.", field: "files") unless brought.size.between?(1, MOST_FILES)

          brought.to_h { |file| [text(file[:filename].to_s)[0, 200], file[:tempfile].read(LARGEST_BYTES)] }
        end

        def colour(given)
          return if given.empty?

          Core::Palette::Colour.normal(given) || raise(Error.new("A colour looks like #f3b634.", field: "colour", value: given))
        end
      end
    end
  end
end
