# frozen_string_literal: true

require_relative "../../../live/pictures/wardrobe"
require_relative "dress_sheet"
require_relative "shelf_upload"
require_relative "../all/station"

module Bavard
  module Web
    # What lines wear: shelves of emotes, phrases that become pictures, badges.
    class DressApp < Station
      get "/" do
        @here = "dress"
        @backdrop = ask { |show| show.desks.each_value.first&.stage&.backdrop } || "dawn"
        erb :dress
      end

      get("/sheet") { json(DressSheet.new(site, show, @record.id).whole) }

      # A line as somebody on some feed would write it, dressed.
      get "/try" do
        words = text(params["text"])[0, 500]
        feed_id = text(params["feed"])[/\A\d{1,18}\z/]&.to_i
        json(ask { |show| DressSheet.try(show, words, feed_id) })
      end

      post "/shelves" do
        room("shelves")
        shelf_id = site.stores.dress.add_shelf(@record.id, name_of_shelf)
        changed(id: shelf_id)
      end

      post "/shelves/order" do
        site.stores.dress.order_shelves(@record.id, numbers(params["ids"]))
        changed
      end

      # A pack or loose pictures, dropped; followed under /imports.
      post "/shelves/upload" do
        json(import: upload_to_shelf.files(uploads).id)
      end

      # A few to begin with, that ship with the application.
      post "/shelves/ours" do
        json(import: upload_to_shelf.ours.id)
      end

      # A pack that stands at an address, and can be read again from there.
      post "/shelves/from-address" do
        json(import: outward { upload_to_shelf.address(text(params["address"]).strip) }.id)
      end

      get "/imports/:import" do
        import = site.imports.find(@record.id, params[:import]) || not_found
        json(import.report)
      end

      post "/imports/:import/stop" do
        site.imports.stop(site.imports.find(@record.id, params[:import]) || not_found)
        json(done: true)
      end

      # Name, on or off, feeds it is not worn on, or gone and back.
      post "/shelves/:shelf" do
        values = {}
        values[:name] = name_of_shelf if params["name"]
        values[:on] = params["on"] == "1" if params["on"]
        values[:off_feeds] = numbers(params["off_feeds"]) & site.stores.feeds.all_of_show(@record.id).map(&:id) if params["off_feeds"]
        room("shelves") if params["removed"] == "0"
        values[:removed_at_ms] = params["removed"] == "1" ? site.clock.call : nil if params["removed"]
        keep { site.stores.dress.keep_shelf(@record.id, id(params[:shelf]), **values) }
      end

      # One picture by its address, onto a shelf.
      post "/shelves/:shelf/emotes" do
        shelf_id = id(params[:shelf])
        not_found unless site.stores.dress.shelf?(@record.id, shelf_id)
        room("emotes")
        code = code_of(params["code"])
        picture = picture_at(params["address"])
        site.stores.dress.put_emote(shelf_id, code, picture)
        changed
      end

      post "/emotes/:emote" do
        values = {}
        values[:code] = code_of(params["code"]) if params["code"]
        values[:overlay] = params["overlay"] == "1" if params["overlay"]
        values[:any_case] = params["any_case"] == "1" if params["any_case"]
        keep { site.stores.dress.keep_emote(@record.id, id(params[:emote]), **values) }
      rescue Sequel::UniqueConstraintViolation
        raise Error.new("That shelf has #{text(params["code"])} already.", field: "code")
      end

      # Taken away, and put back.
      {"emotes" => :emote, "phrases" => :phrase}.each do |path, what|
        post("/#{path}/:id/remove") do
          row = site.stores.dress.public_send(:"remove_#{what}", @record.id, id(params[:id])) || not_found
          remember_removed(what, row)
          changed
        end

        post("/#{path}/:id/put-back") do
          row = removed(what, id(params[:id])) || not_found
          room(path)
          site.stores.dress.public_send(:"put_back_#{what}", @record.id, row)
          changed
        end
      end

      post "/phrases" do
        words = text(params["words"]).split.join(" ")
        unless words.length.between?(1, 100) && Core::Dress::Phrases.split(words).any?
          raise Error.new("Which words? Up to 100 characters of them.", field: "words")
        end

        room("phrases")
        site.stores.dress.add_phrase(@record.id, words, picture_of(params["picture"], params["address"]))
        changed
      end

      # Of one kind on one feed: shown or not, and the host's own picture.
      post "/badges/:feed/:kind" do
        feed_id = id(params[:feed])
        ask { |show| show.lane(feed_id) }
        values = {}
        values[:shown] = params["shown"] == "1" if params["shown"]
        if params["picture"] || params["address"] || params["file"]
          values[:picture_id] =
            if params["picture"] == "theirs"
              nil
            else
              picture_of(params["picture"], params["address"],
                params["file"])
            end
        end
        keep { site.stores.dress.keep_badge(feed_id, text(params[:kind]), **values) }
      end

      helpers do
        # What has changed is worn at once, on all that stands too.
        def changed(answer = {done: true})
          contents = Live::Wardrobe.load(site.stores.dress, @record.id)
          ask { |show| show.dress(contents) }
          json(answer)
        end

        def numbers(given) = text(given).scan(/\d{1,18}/).map(&:to_i)
        def keep = yield ? changed : not_found

        def name_of_shelf
          name = text(params["name"]).strip
          raise Error.new("What is the shelf called? Up to 80 characters.", field: "name") unless name.length.between?(1, 80)

          name
        end

        def code_of(given)
          code = text(given).strip
          return code if code.match?(/\A\S{1,100}\z/)

          raise Error.new("A code is one word without blanks, such as :wren:", field: "code", value: given)
        end

        # @return [ShelfUpload] onto the shelf that is named, or a new one
        def upload_to_shelf
          shelf_id = text(params["shelf"])[/\A\d{1,18}\z/]&.to_i
          not_found if shelf_id && !site.stores.dress.shelf?(@record.id, shelf_id)
          ShelfUpload.new(site, show, @record.id, shelf_id)
        end

        # @return [Array<Array(String, Tempfile)>]
        def uploads
          brought = Array(params["files"]).grep(Hash).select { |file| file[:tempfile] }
          raise Error.new("Drop pictures, or one pack as a ZIP.", field: "files") if brought.empty?

          most = ShelfUpload::MOST_FILES
          raise Error.new("Up to #{most} pictures at once; more of them go into a ZIP.", field: "files") if brought.size > most

          brought.map { |file| [text(file[:filename].to_s)[0, 200], file[:tempfile]] }
        end

        def picture_at(address)
          outward { site.pictures.get(text(address).strip, @record.id) }
        rescue Error => error
          raise error.in_words("That picture was not taken: #{error.reason}.", field: "address")
        end

        # One that is known, one at an address, or one that is brought.
        def picture_of(picture, address, file = nil)
          return site.pictures.keep(file[:tempfile].read(ShelfUpload::LARGEST_BYTES), @record.id) if file.is_a?(Hash) && file[:tempfile]
          return picture_at(address) unless text(address).strip.empty?

          picture = text(picture)
          site.stores.dress.picture?(picture) ? picture : raise(Error.new("Which picture?", field: "picture"))
        rescue Error => error
          raise error if error.field

          raise error.in_words("That picture was not taken: #{error.reason}.", field: "picture")
        end

        # What was removed can be put back by the same show until the process ends.
        def remember_removed(what, row)
          kept = settings.removed_rows
          kept.shift if kept.size >= 1000
          kept[[@record.id, what, row[:id]]] = row
        end

        def removed(what, row_id) = settings.removed_rows.delete([@record.id, what, row_id])
      end

      set :removed_rows, {}
    end
  end
end
