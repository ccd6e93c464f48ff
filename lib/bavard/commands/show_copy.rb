# frozen_string_literal: true

require "fileutils"
require "json"
require "open3"
require "tmpdir"
require_relative "../error"
require_relative "../feeds/activities"
require_relative "../start/data_folder"
require_relative "../store/accounts"
require_relative "../store/database"
require_relative "../store/secret_box"
require_relative "../store/shows"
require_relative "../store/whole_show"

module Bavard
  module Commands
    # One show in one file, and out of it again as the show of a new account, here or elsewhere: a tar with show.json, a file of JSON lines
    # for each table, and the pictures, films, sounds and faces that it uses. No secret and no link is in it; it is taken as it is, as a
    # backup is, so that only a Bavard whose word one takes should have written it.
    class ShowCopy
      FORMAT = "bavard-show-copy"
      ABOUT = "show.json"
      PICTURES = "pictures.json"
      ROWS = "rows"
      FILES = "files"
      FOLDERS = %w[pictures films sounds faces].freeze
      NAME = /[0-9a-f]{32}/

      # @param db [Sequel::Database]
      # @param data [Start::DataFolder]
      def initialize(db, data)
        @db = db
        @data = data
        @shows = Store::WholeShow.new(db, inbox: method(:inbox))
      end

      # While it runs, or not.
      #
      # @param show_id [Integer]
      # @param file [String] which is not there yet
      # @param log [Boolean] whether what came in and what was done goes along
      # @return [String] what to say
      # @raise [Bavard::Error]
      def write(show_id, file, log:, by:)
        raise Error, "#{file} is there already." if File.exist?(file)

        about = @shows.about(show_id)
        part = "#{File.expand_path(file)}.part"
        Dir.mktmpdir("show", File.dirname(part)) do |stage|
          names = rows(stage, show_id, log, NAME)
          File.write(File.join(stage, PICTURES), JSON.generate(@shows.pictures(names)))
          File.write(File.join(stage, ABOUT),
            JSON.generate(format: FORMAT, schema: @db[:schema_info].get(:version), tables: @shows.tables(log), show: about))
          link_files(stage, names | about.to_s.scan(NAME))
          File.write(part, "", perm: 0o600)
          run!("tar", "--use-compress-program=gzip -1", "-cf", part, "-C", stage, ".")
        end
        File.rename(part, file)
        noted("copy", by, "#{about["name"]} (#{show_id})")
        "#{file}: #{(File.size(file) / 1_000_000.0).round(1)} MB, #{log ? "with" : "without"} what came in."
      ensure
        FileUtils.rm_f(part) if part
      end

      # As the show of a new account.
      #
      # @return [String] what to say
      # @raise [Bavard::Error]
      def read(file, email, by:)
        raise Error, "There is no #{file}." unless File.file?(file)

        Dir.mktmpdir("show", @data.root) do |stage|
          run!("tar", "-xzf", File.expand_path(file), "--no-same-owner", "--no-same-permissions", "-C", stage)
          about = about(stage)
          word, counts = taken_in(stage, about, email, by)
          put_files(File.join(stage, FILES))
          noted("bring", by, email)
          "#{email} signs in with #{word}. #{told(counts, about)} Its feeds wait to be connected, and its links are new."
        end
      end

      private

      # A new address, and a new key to sign with, which the host finds in the feed's lane.
      def inbox
        made = Feeds::Activities.read("name" => Feeds::Activities::LABEL)
        {"address" => made[:address], "secret" => Store::SecretBox.new(@data.feeds_key).close(made[:password])}
      end

      # @return [Array<String>] names of the files it speaks of
      def rows(stage, show_id, log, name)
        FileUtils.mkdir_p(File.join(stage, ROWS))
        found = {}
        @shows.tables(log).each do |table|
          File.open(File.join(stage, ROWS, "#{table}.jsonl"), "w") do |out|
            @shows.each_row(show_id, table) do |row|
              line = JSON.generate(row)
              out.puts(line)
              line.scan(name) { |one| found[one] = true } unless log_of?(table)
            end
          end
        end
        found.keys
      end

      # Who wrote something may have written anything.
      def log_of?(table) = Store::WholeShow::LOG.map(&:name).include?(table)

      # They never change, and are as large as they are: not copied before they are packed.
      def link_files(stage, names)
        wanted = names.to_h { |name| [name, true] }
        FOLDERS.each do |folder|
          Dir.glob("{*,*/*}", base: @data.path(folder)).each do |path|
            next unless wanted[File.basename(path)[NAME]] && File.file?(from = File.join(@data.path(folder), path))

            to = File.join(stage, FILES, folder, path)
            FileUtils.mkdir_p(File.dirname(to))
            link(from, to)
          end
        end
      end

      def link(from, to)
        File.link(from, to)
      rescue Errno::EXDEV, Errno::EPERM
        FileUtils.cp(from, to)
      rescue Errno::ENOENT
        nil # nobody spoke of it any more
      end

      # @raise [Bavard::Error]
      def about(stage)
        about = JSON.parse(File.read(File.join(stage, ABOUT)))
        raise Error, "That is no copy of a show." unless about.is_a?(Hash) && about["format"] == FORMAT

        newest = Store::Database.newest
        raise Error, "It is of a newer Bavard (#{about["schema"]}, this one knows #{newest}). Use that one." if about["schema"].to_i > newest

        about
      rescue SystemCallError, JSON::ParserError
        raise Error, "That is no copy of a show."
      end

      # @return [Array(String, Hash)] a password, and rows by table
      def taken_in(stage, about, email, by)
        @db.transaction do
          word = Store::Accounts.new(@db).make(email, about.dig("show", "name").to_s, by:)
          show = Store::Shows.new(@db).of_account(@db[:accounts].where(email:).get(:id))
          pictures = JSON.parse(File.read(File.join(stage, PICTURES)))
          counts = @shows.fill(show.id, about["show"], pictures, about["tables"].map(&:to_sym)) { |table| rows_of(stage, table) }
          [word, counts]
        end
      rescue SystemCallError
        raise Error, "That copy is not whole."
      end

      def rows_of(stage, table)
        path = File.join(stage, ROWS, "#{table}.jsonl")
        raise Error, "That copy is not whole: #{table} is missing." unless File.file?(path) && !File.symlink?(path)

        File.foreach(path).lazy.map { |line| JSON.parse(line) }
      end

      # Only what is called as our files are, and is there as a file.
      def put_files(folder)
        FOLDERS.each do |kind|
          Dir.glob("{*,*/*}", base: File.join(folder, kind)).each do |path|
            from = File.join(folder, kind, path)
            to = File.join(@data.path(kind), path)
            next if !File.lstat(from).file? || !path.match?(%r{\A(?:[0-9a-f]{2}/)?(?:own-)?[0-9a-f]{32}[-.][\w.-]*\z}) || File.exist?(to)

            FileUtils.mkdir_p(File.dirname(to))
            File.rename(from, to)
            ours(to)
          end
        end
      end

      # Whoever does this may be somebody else than whoever runs it.
      def ours(path)
        return unless Process.uid.zero?

        owner = File.stat(@data.root)
        [File.dirname(path), path].each { |one| File.chown(owner.uid, owner.gid, one) }
        File.chmod(0o644, path)
      end

      def told(counts, about)
        all = %i[stages feeds emotes].map { |table| many(counts[table], table.to_s.delete_suffix("s")) }
        all << "#{many(counts[:lines], "line")} new to the log" if about["tables"].include?("lines")
        "#{all.join(", ")}."
      end

      def many(count, thing) = "#{count} #{thing}#{"s" unless count == 1}"

      def noted(what, by, about) = Store::Accounts.new(@db).deeds.note(what, by:, about:)

      def run!(*command)
        said, status = Open3.capture2e({"LC_ALL" => "C.UTF-8", "GZIP" => nil}, *command)
        raise Error, "#{File.basename(command.first)} said:\n#{said.lines.last(4).join}" unless status.success?
      end
    end
  end
end
