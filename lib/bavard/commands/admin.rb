# frozen_string_literal: true

# What whoever runs Bavard does from a terminal. See bin/admin.
require_relative "../error"
require_relative "../start/address"
require_relative "../start/data_folder"
require_relative "../start/installed"
require_relative "../start/postgres"
require_relative "../store/accounts"
require_relative "../store/ceilings"
require_relative "../store/database"
require_relative "../store/usage"
require_relative "../store/spoken_of"
require_relative "../store/workers"
require_relative "../live/pictures/collector"
require_relative "backup"
require_relative "show_copy"

module Bavard
  module Commands
    # Accounts and shows of an installation. The page of operators (/operator/) does the same.
    class Admin
      PROJECT = File.expand_path("../../..", __dir__)
      # As whom what is done here is written down.
      BY = "bin/admin"
      USAGE = <<~WORDS
        bin/admin                        who has an account
        bin/admin make EMAIL [SHOW]      makes one, with a show of that name
        bin/admin operator EMAIL         makes them an operator; no-operator EMAIL takes it back
        bin/admin invite NAME            makes a link by which somebody can make an account, once
        bin/admin password EMAIL         sets a new password, and signs them out everywhere
        bin/admin one-factor EMAIL       takes their second factor away, where app and recovery codes are lost
        bin/admin sign-out EMAIL         signs them out everywhere
        bin/admin close EMAIL            nobody signs in with it, and its show does not run; reopen EMAIL takes it back
        bin/admin remove EMAIL           takes it away with everything that is theirs
        bin/admin use                    what each show uses
        bin/admin ceilings SHOW [files=500 …]   what a show of that number may have, where that is other than usual
        bin/admin workers                the processes that share the shows, and what runs where
        bin/admin move SHOW ADDRESS      a show goes on in that one
        bin/admin deeds                  what operators did, and who signed in
        bin/admin collect                takes files away that nobody uses any more; it is done by itself four times a day
        bin/admin copy SHOW FILE [log]   a show of that number into one file, without secrets and links; "log": with what came in
        bin/admin bring FILE EMAIL       out of that, as the show of a new account, here or elsewhere
        bin/admin backup FILE            all of it into one file, while it runs or not
        bin/admin restore FILE           out of that, into a folder (BAVARD_DATA) and a database that are empty
      WORDS
      MB = 1_000_000.0

      # @param db [Sequel::Database]
      # @param address [String] where the installation is, for links
      # @param data [Start::DataFolder, nil] where its files are
      def initialize(db, address = "", data: nil)
        @db = db
        @data = data
        @address = address
        @accounts = Store::Accounts.new(db)
      end

      # @param words [Array<String>] as typed
      # @return [String] what to say
      # @raise [Bavard::Error]
      def run(words)
        what, *rest = words
        case what
        when nil, "list" then list
        when "make" then make(*rest)
        when "invite" then "#{@address}/account/create-account?invitation=#{@accounts.invite(rest.join(" "), by: BY).token}"
        when "use" then use
        when "ceilings" then ceilings(*rest)
        when "workers" then workers
        when "move" then move(*rest)
        when "deeds" then deeds
        when "collect" then collect
        when "copy" then copy(*rest)
        when "bring" then bring(*rest)
        else about(what, rest)
        end
      end

      # @param env [Hash] as ENV
      # @param words [Array<String>] as typed
      # @return [String] what to say
      # @raise [Bavard::Error]
      def self.call(env, words)
        data = Start::DataFolder.new(Start::DataFolder.choose(env, PROJECT, Start::Postgres.user))
        what, file, more = words
        unless %w[backup restore].include?(what)
          return with_database(env, data) { |url| new(Store::Database.open_patiently(url), Start::Address.of(env), data:).run(words) }
        end
        raise Error, USAGE if file.nil? || more

        what == "backup" ? with_database(env, data) { |url| Backup.new(data, url).write(file, by: BY) } : restore(env, data, file)
      rescue Sequel::DatabaseConnectionError => error
        raise Error, Store::Database.unreachable(error)
      end

      # With the database of this Bavard, whether it runs or not.
      #
      # @yieldparam url [String]
      def self.with_database(env, data)
        return yield(env["DATABASE_URL"]) unless env["DATABASE_URL"].to_s.empty?
        raise Error, "There is no Bavard in #{data.root}. Name its folder with BAVARD_DATA." unless File.exist?(data.path("database.password"))

        with_postgres(data) { |url| yield url }
      end

      # What was restored by half is begun again; what is there otherwise stays as it is.
      def self.restore(env, data, file)
        half = File.exist?(data.path(Backup::HALF))
        raise Error, "There is something in #{data.root}. Restore into a folder that is empty, named with BAVARD_DATA." unless half || empty?(data)

        Backup.new(data, nil).about(file)
        FileUtils.mkdir_p(data.path(Backup::HALF))
        data.lock
        own = env["DATABASE_URL"].to_s
        return Backup.new(data, own).read(file, by: BY) unless own.empty?

        begin_anew(data) if half
        with_postgres(data) { |url| Backup.new(data, url).read(file, by: BY) }
      end

      def self.empty?(data) = !File.exist?(data.root) || Dir.empty?(data.root)

      def self.begin_anew(data)
        postgres = Start::Postgres.new(data)
        postgres.stop
        FileUtils.rm_rf(%w[postgres postgres.new database.password application.password].map { |name| data.path(name) })
      end

      def self.with_postgres(data)
        postgres = Start::Postgres.new(data)
        running = postgres.running?
        yield postgres.start
      ensure
        postgres&.stop unless running
      end
      private_class_method :with_database, :restore, :empty?, :begin_anew, :with_postgres

      private

      def list
        all = @accounts.all
        return "Nobody yet." if all.empty?

        all.map do |account|
          notes = [account.shows.map { |id, name| "#{name} (#{id})" }, ("operator" if account.operator), ("closed" if account.closed_at_ms)]
          [account.email, *notes.flatten.compact].join("  ")
        end.join("\n")
      end

      def make(email = nil, show = nil) = "#{email} signs in with #{@accounts.make(email, show, by: BY)}"

      # What is about one account.
      ABOUT = {
        "password" => [:new_password, "%s signs in with %s, and is signed out everywhere."],
        "one-factor" => [:one_factor, "%s signs in with the password alone."],
        "sign-out" => [:sign_out, "%s is signed out everywhere."],
        "close" => [:close, "%s is closed: nobody signs in with it, and its show does not run."],
        "reopen" => [:reopen, "%s is open again."],
        "remove" => [:remove, "%s is removed, with everything that was theirs. Files that nobody else uses go within a day."],
        "operator" => [:appoint, "%s is an operator.", true], "no-operator" => [:appoint, "%s is no operator any more.", false]
      }.freeze
      private_constant :ABOUT

      def about(what, rest)
        method, words, *more = ABOUT[what]
        raise Error, USAGE unless method && rest.size == 1

        account = @accounts.by_email(rest.first)
        came = @accounts.public_send(method, account[:id], *more, by: BY)
        format(words, account[:email], came)
      end

      def use
        rows = Store::Usage.new(@db).by_show.map do |use|
          [use.show_id, use.name, use.email, "#{use.lines} lines", "#{(use.bytes / MB).round(1)} MB of files"].join("  ")
        end
        rows.empty? ? "No show yet." : rows.join("\n")
      end

      def ceilings(show = nil, *given)
        raise Error, USAGE unless show.to_s.match?(/\A\d{1,18}\z/)

        ceilings = Store::Ceilings.new(@db).refresh
        ceilings.set(show.to_i, Store::Ceilings.read(given.join(" "))) if given.any?
        @accounts.deeds.note("ceilings", by: BY, about: "show #{show}", detail: ceilings.own(show.to_i)) if given.any?
        ceilings.of(show.to_i).map { |what, most| "#{what}=#{most}" }.join(" ")
      end

      def workers
        shows = places.places.group_by(&:last).transform_values { |there| there.map(&:first) }
        alive = places.alive
        return "One process runs all shows." if alive.empty?

        alive.map { |address| [address, *shows[address]&.then { |ids| "shows #{ids.sort.join(" ")}" }].join("  ") }.join("\n")
      end

      # Where it sleeps, it goes on there when somebody needs it.
      def move(show = nil, address = nil, more = nil)
        raise Error, USAGE if more || address.nil? || !show.match?(/\A\d{1,18}\z/)
        raise Error, "No worker is at #{address}: #{places.alive.join(", ")}" unless places.alive.include?(address)
        raise Error, "No show #{show} has run yet." unless places.ask_for(show.to_i, address).positive?

        @accounts.deeds.note("move", by: BY, about: "show #{show}", detail: {"to" => address})
        "Show #{show} goes on at #{address}."
      end

      def copy(show = nil, file = nil, log = nil, *more)
        raise Error, USAGE if file.nil? || ![nil, "log"].include?(log) || more.any? || !show.match?(/\A\d{1,18}\z/)

        ShowCopy.new(@db, @data).write(show.to_i, file, log: log == "log", by: BY)
      end

      def bring(file = nil, email = nil, *more)
        raise Error, USAGE if email.nil? || more.any?

        ShowCopy.new(@db, @data).read(file, email, by: BY)
      end

      def places = @places ||= Store::Workers.new(@db)

      def collect
        folders = %w[pictures films sounds faces].map { |name| @data.path(name) }
        collected = Live::Collector.new(folders, Store::SpokenOf.new(@db), @accounts.deeds, logger: nil).collect(by: BY)
        "#{collected.files} files, #{(collected.bytes / MB).round(1)} MB"
      end

      def deeds
        all = @accounts.deeds.latest
        return "Nothing yet." if all.empty?

        all.map { |deed| "#{Time.at(deed.at_ms / 1000).utc.strftime("%F %T")}  #{deed.by} #{deed.words} #{deed.about}".rstrip }.join("\n")
      end
    end
  end
end

if $PROGRAM_NAME == __FILE__
  begin
    puts Bavard::Commands::Admin.call(Bavard::Start::Installed.env(ENV, Bavard::Commands::Admin::PROJECT), ARGV)
  rescue Bavard::Error => error
    abort error.message
  end
end
