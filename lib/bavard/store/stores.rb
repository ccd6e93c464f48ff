# frozen_string_literal: true

require_relative "accounts"
require_relative "cast"
require_relative "ceilings"
require_relative "deed_writing"
require_relative "deeds"
require_relative "descriptions"
require_relative "dress"
require_relative "emote_sets"
require_relative "erasing"
require_relative "feeds"
require_relative "fellows"
require_relative "looks"
require_relative "files"
require_relative "left_out"
require_relative "lines"
require_relative "log_writing"
require_relative "members"
require_relative "microphones"
require_relative "people"
require_relative "permissions"
require_relative "shows"
require_relative "stages"
require_relative "tallies"
require_relative "usage"

module Bavard
  module Store
    # Where all that belongs to shows is kept, each sort in a store of its own.
    #
    # known:: People who were heard; team:: Members, and links for them
    Stores = Struct.new(:shows, :stages, :files, :feeds, :permissions, :lines, :known, :left_out, :deeds, :team, :cast, :tallies, :fellows, :looks,
      :dress, :microphones, :descriptions, :emote_sets, :ceilings, :accounts, :usage, :erasing, keyword_init: true) do
      # @param db [Sequel::Database]
      # @param box [SecretBox] for what nobody may read in the database
      # @param limits [Hash{String => Integer}] as Ceilings takes them
      # @return [Stores]
      def self.over(db, box, limits = {})
        plain = {shows: Shows, files: Files, lines: Lines, known: People, left_out: LeftOut, deeds: Deeds, cast: Cast, tallies: Tallies,
                 fellows: Fellows, looks: Looks, dress: Dress, descriptions: Descriptions, emote_sets: EmoteSets, accounts: Accounts, usage: Usage,
                 erasing: Erasing}
        permissions = Permissions.new(db, box)
        new(**plain.transform_values { |store| store.new(db) }, stages: Stages.new(db, box), team: Members.new(db, box), permissions:,
          microphones: Microphones.new(db, box),
          feeds: Feeds.new(db, box, permissions), ceilings: Ceilings.new(db, limits).refresh)
      end

      # What an earlier version kept in clear is sealed.
      def seal = [stages, team].each(&:seal)

      # @param moved [#call, nil] as DeedWriting takes it
      # @return [DeedWriting] by which deeds that a journal keeps are written
      def deed_writing(moved: nil) = DeedWriting.new(moved:, **to_h.slice(:shows, :stages, :feeds, :lines, :left_out, :deeds))

      # @return [LogWriting] by which what came in is written
      def log_writing = LogWriting.new(lines, feeds:, people: known)
    end
  end
end
