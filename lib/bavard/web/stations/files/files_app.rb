# frozen_string_literal: true

require_relative "brought_files"
require_relative "../all/lately_removed"
require_relative "../all/station"

module Bavard
  module Web
    # Sounds, films and pictures of the show: brought, heard, named, put on shelves and taken away. Belongs to Dress.
    class FilesApp < Station
      KINDS = %w[sound film picture].freeze
      LONGEST_SHELF = 40
      REMOVED = LatelyRemoved.new

      get "/" do
        @here = "files"
        erb :files
      end

      get("/sheet") { json(sheet) }

      post "/bring" do
        given = params["file"]
        raise Error.new("Which file?", field: "file") unless given.is_a?(Hash) && given[:tempfile]

        kind = KINDS.find { |one| one == params["kind"] } or raise Error.new("It is no sound, film or picture.", field: "kind")
        name = text(given[:filename])
        taking(given) do |file, watch|
          BroughtFiles.new(site, @record.id, watch:).keep(kind, name, file)
          sheet
        end
      end

      # How far something is that was brought, and what came of it.
      get("/takings/:taking") { json(on_its_way.report) }

      post "/takings/:taking/stop" do
        on_its_way.stop
        json(on_its_way.report)
      end

      # Its name, or the shelf it stands on.
      post "/:kind/:file" do
        kept = file
        more = kept.more.merge(params["shelf"] ? {"shelf" => text(params["shelf"]).strip[0, LONGEST_SHELF]} : {})
        site.stores.files.describe(@record.id, kept.kind, kept.id, name: params["name"] ? text(params["name"]) : kept.name, more:)
        json(sheet)
      end

      post "/:kind/:file/remove" do
        kept = file
        used = uses[kept.id]
        raise Error, "“#{kept.name}” plays with #{used.map { |name| "“#{name}”" }.join(", ")}. Choose another one there first." if used

        REMOVED.remember([@record.id, kept.kind, kept.id], kept)
        site.stores.files.remove(@record.id, kept.kind, kept.id)
        json(sheet)
      end

      post "/:kind/:file/put-back" do
        kept = REMOVED.recall([@record.id, text(params[:kind]), text(params[:file])]) || not_found
        site.stores.ceilings.room_for_file(@record.id, kept.bytes)
        site.stores.files.keep(@record.id, kept, site.clock.call)
        json(sheet)
      end

      helpers do
        def on_its_way = site.takings.find(@record.id, text(params[:taking])) || not_found

        def file
          kind = KINDS.find { |one| one == params[:kind] } || not_found
          site.stores.files.find(@record.id, kind, text(params[:file])) || not_found
        end

        # @return [Hash{String => Array<String>}] names of the cues that play a file
        def uses
          ask { |show| show.cues.document["cues"] }.each_with_object({}) do |cue, uses|
            Core::Cues::Cue.files(cue).each { |id| (uses[id] ||= []) << cue["name"] }
          end
        end

        def sheet
          used = uses
          {of_all:, **kinds(used)}
        end

        # What is there of all that may be.
        def of_all
          %w[files megabytes].to_h { |what| [what, [site.stores.ceilings.used(@record.id, what), site.stores.ceilings.most(@record.id, what)]] }
        end

        def kinds(used)
          KINDS.to_h { |kind| ["#{kind}s", site.stores.files.of_show(@record.id, kind).map { |kept| card(kept, used[kept.id]) }] }
        end

        def card(kept, used)
          {id: kept.id, name: kept.name, bytes: kept.bytes, width: kept.width, height: kept.height, used: used || [],
           **kept.more.slice("seconds", "loudness", "was", "peaks", "shelf")}
        end
      end
    end
  end
end
