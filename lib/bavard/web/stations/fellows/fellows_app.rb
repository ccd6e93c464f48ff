# frozen_string_literal: true

require_relative "../../../core/cues/fellow"
require_relative "../files/brought_files"
require_relative "../all/lately_removed"
require_relative "../all/station"

module Bavard
  module Web
    # Fellow hosts: the cards of shout-outs. Belongs to Dress.
    class FellowsApp < Station
      REMOVED = LatelyRemoved.new

      get "/" do
        @here = "fellows"
        erb :fellows
      end

      get("/sheet") { json(sheet) }

      post "/" do
        values = Core::Cues::Fellow.read({"name" => text(params["name"])})
        site.stores.fellows.add(@record.id, **values)
        changed
      end

      post "/:fellow" do
        given = %w[name words last_shown followers].select { |name| params[name] }.to_h { |name| [name, text(params[name])] }
        keep(**Core::Cues::Fellow.read(given))
      end

      post "/:fellow/picture" do
        fellow
        file = brought("Which picture?")
        keep(picture: figure(text(file[:filename]), file[:tempfile].read))
      end

      # A film that is made anew, and becomes one of their clips.
      post "/:fellow/clips" do
        fellow
        film = brought("Which film?")
        kept = BroughtFiles.new(site, @record.id).keep("film", text(film[:filename]), film[:tempfile])
        keep(clips: (fellow.clips | [kept.id]).first(Core::Cues::Fellow::MOST_CLIPS))
      end

      post "/:fellow/clips/:film/remove" do
        keep(clips: fellow.clips - [text(params[:film])])
      end

      post "/:fellow/clips/:film/put-back" do
        film = site.stores.files.find(@record.id, "film", text(params[:film])) || not_found
        keep(clips: (fellow.clips | [film.id]).first(Core::Cues::Fellow::MOST_CLIPS))
      end

      post "/:fellow/remove" do
        card = fellow
        REMOVED.remember([@record.id, card.id], card)
        site.stores.fellows.remove(@record.id, card.id)
        changed
      end

      # As it was, under another number.
      post "/:fellow/put-back" do
        card = REMOVED.recall([@record.id, id(params[:fellow])]) || not_found
        made = site.stores.fellows.add(@record.id, name: card.name)
        site.stores.fellows.keep(@record.id, made, **card.to_h.except(:id, :key))
        changed
      end

      # The card, now.
      post "/:fellow/play" do
        name = fellow.name
        played = ask { |show| show.shout_outs.add(name) }
        raise Error, "No stage has a shout-out piece on it, the card waits already, or the gate keeps that name off." unless played

        json(done: true)
      end

      helpers do
        def brought(none)
          given = params["file"]
          given.is_a?(Hash) && given[:tempfile] ? given : raise(Error.new(none, field: "file"))
        end

        def fellow
          fellow_id = id(params[:fellow])
          site.stores.fellows.of_show(@record.id).find { |one| one.id == fellow_id } || not_found
        end

        def keep(**values)
          site.stores.fellows.keep(@record.id, id(params[:fellow]), **values) ? changed : not_found
        end

        # From now on.
        def changed
          fellows = site.stores.fellows.of_show(@record.id)
          ask { |show| show.shout_outs.fellows = fellows }
          json(sheet)
        end

        def sheet
          films = site.stores.files.of_show(@record.id, "film").to_h { |film| [film.id, film.name] }
          fellows = site.stores.fellows.of_show(@record.id)
          {fellows: fellows.map { |one| one.to_h.merge(clips: one.clips.map { |film| [film, films.fetch(film, "a clip")] }) }}
        end
      end
    end
  end
end
