# frozen_string_literal: true

require "fileutils"
require "json"
require "open3"
require "sequel"
require "tmpdir"
require_relative "../error"
require_relative "../start/data_folder"
require_relative "../start/postgres"
require_relative "../store/accounts"
require_relative "../store/database"

module Bavard
  module Commands
    # An installation in one file, and out of it again: a tar with backup.json, the database as pg_dump writes it, and the files of the data
    # folder. The database is as it was at one moment; files are named after their content and never change, so that those it speaks of are
    # there. Keys are in it: whoever has it has the installation.
    class Backup
      FORMAT = "bavard-backup"
      ABOUT = "backup.json"
      DUMP = "database.dump"
      # What belongs to this machine, is made anew, or is nobody's business elsewhere.
      NOT = %w[postgres postgres.new log lock temporary handout mail database.password application.password restoring].freeze
      HALF = "restoring"

      # @param data [Start::DataFolder]
      # @param url [String] of its database
      def initialize(data, url)
        @data = data
        @url = url
      end

      # While it runs, or not.
      #
      # @param file [String] which is not there yet
      # @return [String] what to say
      # @raise [Bavard::Error]
      def write(file, by:)
        raise Error, "#{file} is there already." if File.exist?(file)

        db = Store::Database.open_patiently(@url)
        part = "#{File.expand_path(file)}.part"
        Dir.mktmpdir("backup", File.dirname(part)) do |stage|
          dump(File.join(stage, DUMP))
          File.write(File.join(stage, ABOUT), JSON.generate(format: FORMAT, schema: schema_of(db), made_at: Time.now.utc.strftime("%FT%TZ")))
          pack(stage, part)
        end
        File.rename(part, file)
        Store::Accounts.new(db).deeds.note("backup", by:, about: File.basename(file))
        "#{file}: #{(File.size(file) / 1_000_000.0).round(1)} MB. Keys are in it: keep it as you keep passwords."
      ensure
        db&.disconnect
        FileUtils.rm_f(part) if part
      end

      # Into a folder and a database that are empty.
      #
      # @param file [String]
      # @return [String] what to say
      # @raise [Bavard::Error]
      def read(file, by:)
        half = @data.path(HALF)
        about = about(file)
        FileUtils.rm_rf(half)
        FileUtils.mkdir_p(half)
        run!("tar", "-xzf", File.expand_path(file), "--no-same-owner", "-C", half)
        fill(File.join(half, DUMP))
        Dir.children(half).reject { |name| [ABOUT, DUMP].include?(name) }.each { |name| put(File.join(half, name), @data.path(name)) }
        FileUtils.rm_rf(half)
        "Restored as it was at #{about["made_at"]}. Start it as you did before."
          .tap { noted { |deeds| deeds.note("restore", by:, about: File.basename(file)) } }
      end

      # @raise [Bavard::Error] where that is none of ours, or of a newer version
      # @return [Hash]
      def about(file)
        raise Error, "There is no #{file}." unless File.file?(file)

        said, status = Open3.capture2("tar", "--occurrence=1", "-xzOf", File.expand_path(file), ABOUT, err: File::NULL)
        about = status.success? ? JSON.parse(said) : {}
        raise Error, "#{file} is no backup of a Bavard." unless about["format"] == FORMAT

        newest = Store::Database.newest
        raise Error, "#{file} is of a newer Bavard (#{about["schema"]}, this one knows #{newest}). Use that one." if about["schema"].to_i > newest

        about
      rescue JSON::ParserError
        raise Error, "#{file} is no backup of a Bavard."
      end

      private

      def schema_of(db) = db[:schema_info].get(:version)

      def dump(file)
        FileUtils.touch(file)
        FileUtils.chmod(0o600, file)
        run!(Start::Postgres.binary("pg_dump"), "-Fc", "-Z1", "--no-owner", "--no-privileges", "-f", file, "-d", @url)
      end

      # A file that goes meanwhile is one that the database does not speak of any more.
      def pack(stage, part)
        File.write(part, "", perm: 0o600)
        names = Dir.children(@data.root).reject { |name| NOT.include?(name) || name.end_with?(".new") }
        said, status = Open3.capture2e({"GZIP" => nil}, "tar", "--use-compress-program=gzip -1", "-cf", part, "--warning=no-file-changed",
          "--warning=no-file-removed", "-C", stage, ABOUT, DUMP, "-C", @data.root, *names.sort)
        # 1: something changed while it was read.
        raise Error, "It could not be written:\n#{said.lines.last(3).join}" unless [0, 1].include?(status.exitstatus)
      end

      def fill(dump)
        db = Store::Database.open_patiently(@url)
        raise Error, "The database is not empty. Nothing was changed." if db.tables.any?

        run!(Start::Postgres.binary("pg_restore"), "--no-owner", "--no-privileges", "--no-comments", "--exit-on-error", "--single-transaction",
          "-d", @url, dump)
      ensure
        db&.disconnect
      end

      def put(from, to)
        FileUtils.rm_rf(to)
        File.rename(from, to)
      end

      def noted
        db = Store::Database.open_patiently(@url)
        Store::Database.migrate(db)
        yield Store::Accounts.new(db).deeds
      ensure
        db&.disconnect
      end

      # Passwords of the address are in no words.
      def run!(*command)
        said, status = Open3.capture2e({"LC_ALL" => "C.UTF-8"}, *command)
        raise Error, "#{File.basename(command.first)} said:\n#{said.gsub(@url, "the database").lines.last(4).join}" unless status.success?
      end
    end
  end
end
