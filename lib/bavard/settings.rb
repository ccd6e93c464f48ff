# frozen_string_literal: true

require "uri"
require_relative "error"
require_relative "feeds/platform"
require_relative "outward/door"
require_relative "start/address"
require_relative "start/data_folder"
require_relative "store/ceilings"
require_relative "web/accounts/sign_in/letters"
require_relative "web/http/operations"
require_relative "web/http/true_client"

module Bavard
  # What whoever runs Bavard has set, read once and before anything begins: the README lists it.
  class Settings
    # Who may make an account.
    ACCOUNTS = %w[open invited closed].freeze

    attr_reader :port, :bind, :data, :database_url, :address, :accounts, :letters, :ceilings, :proxies, :hosts, :platforms, :log_level,
      :log_format, :metrics, :relay, :worker, :nth, :first_port

    # @param env [Hash] as ENV
    # @raise [Bavard::Error] naming what cannot be read
    def initialize(env)
      @env = env
      @port = Integer(env.fetch("PORT", "4600"))
      @bind = env.fetch("BAVARD_BIND", "127.0.0.1")
      @data = Start::DataFolder.new(env.fetch("BAVARD_DATA"))
      @database_url = env.fetch("DATABASE_URL")
      @address = Start::Address.of(env)
      @worker = env["BAVARD_WORKER"]
      @nth = Integer(env.fetch("BAVARD_NTH", "0"))
      @first_port = Integer(env.fetch("BAVARD_FIRST_PORT", port))
      @log_level = env.fetch("BAVARD_LOG", "info").to_sym
      @log_format = one_of("BAVARD_LOG_FORMAT", %w[text json])
      read_what_is_checked
    end

    # @return [String] host and port at which others reach this process
    def here = worker || "#{Start::Address.host(bind)}:#{port}"

    # @return [String] a folder for what is not written yet, of its own for each of several
    def unwritten = nth.zero? ? data.path("unwritten") : data.path("unwritten", "worker-#{nth}")

    # @return [Outward::Door] what the platforms and the operator list may be inside
    def way_out = Outward::Door.new(inside: platforms.values.flat_map(&:authorities) + @inside)

    private

    def read_what_is_checked
      @accounts = one_of("BAVARD_ACCOUNTS", ACCOUNTS)
      @metrics = Web::Operations.readers(@env["BAVARD_METRICS"])
      @letters = Web::SignIn::Letters.new(data.path("mail"), server: @env["BAVARD_MAIL"], from: @env["BAVARD_MAIL_FROM"])
      @ceilings = ceilings_of(@env["BAVARD_CEILINGS"])
      @proxies = Web::TrueClient.proxies(@env["BAVARD_PROXIES"])
      @hosts = Web::TrueClient.hosts(@env["BAVARD_HOSTS"])
      @relay = relay_at(@env["BAVARD_RELAY"])
      @inside = Outward::Door.list(@env["BAVARD_INSIDE"])
      @platforms = with_described(Feeds::Platform.all(@env["BAVARD_PLATFORMS"]))
    end

    # What is wrong with one of them is said where the operator looks, and the others go on. Feeds of a listed platform go on being read as
    # they were.
    def with_described(listed)
      described = Feeds::Platform.described(@env["BAVARD_DESCRIPTIONS"]) { |words| warn "platform left out: #{words}" }
      (described.keys & listed.keys).each { |key| warn "platform left out: “#{key}” is listed already" }
      described.merge(listed)
    end

    def ceilings_of(given)
      Store::Ceilings.read(given)
    rescue Error => error
      raise Error, "BAVARD_CEILINGS: #{error.message}"
    end

    # @return [URI::HTTP, nil]
    def relay_at(given)
      return if given.to_s.empty?

      at = URI.parse(given)
      return at if at.instance_of?(URI::HTTP) && at.host && ["", "/"].include?(at.path)

      raise URI::InvalidURIError
    rescue URI::InvalidURIError
      raise Error, "BAVARD_RELAY is where a relay takes frames, such as http://127.0.0.1:4650; “#{given[0, 60]}” is none."
    end

    def one_of(name, known)
      given = @env.fetch(name, known.first)
      return given if known.include?(given)

      raise Error, "#{name} is #{known[..-2].join(", ")} or #{known.last}; “#{given[0, 40]}” is none of them."
    end
  end
end
