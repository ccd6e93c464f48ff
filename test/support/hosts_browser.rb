# frozen_string_literal: true

require "json"
require "net/http"
require "openssl"
require "uri"

# What signing in and asking takes, without a browser.
class HostsBrowser
  # @param patience_s [Integer] so long an answer is waited for
  # @param named [String, nil] by which name it asks, where that is not the address's
  def initialize(address, patience_s: 60, named: nil)
    @address = URI(address)
    @named = named
    @patience_s = patience_s
    @cookies = {}
  end

  # @return [Hash{String => String}] cookies of somebody whose show runs now
  def sign_in(email, password)
    answer = send_page("/account/login", login: email, password:)
    raise "#{email} could not sign in: #{answer.code} #{answer.body}" unless answer.is_a?(Net::HTTPRedirection)

    seen = get("/gate/state")
    raise "the show of #{email} does not run: #{seen.code}" unless seen.is_a?(Net::HTTPOK)

    @cookies
  end

  # Fills in what a page asks for, and sends it.
  #
  # @return [Net::HTTPResponse]
  def send_page(path, values)
    form = get(path).body[/name="_csrf" value="([^"]+)"/, 1]
    @token = nil
    ask(Net::HTTP::Post.new(path).tap { |post| post.set_form_data("_csrf" => form, **values) })
  end

  # As a page of the house does.
  #
  # @param page [String, nil] path of the page; nil where it has no cookie, and needs no token
  # @param path [String] what it asks
  # @param values [Hash] sent as JSON
  # @return [Net::HTTPResponse]
  def post_json(page, path, values)
    @token ||= get(page).body[/name="csrf" content="([^"]+)"/, 1] if page
    ask(Net::HTTP::Post.new(path, "Content-Type" => "application/json", "X-CSRF-Token" => @token.to_s).tap { |post| post.body = JSON.generate(values) })
  end

  # The same, as a form.
  def post_form(page, path, values)
    @token ||= get(page).body[/name="csrf" content="([^"]+)"/, 1]
    ask(Net::HTTP::Post.new(path, "X-CSRF-Token" => @token.to_s, "X-Requested-With" => "XMLHttpRequest").tap { |post| post.set_form_data(values) })
  end

  # @param headers [Hash{String => String}]
  # @return [Net::HTTPResponse]
  def send_body(path, body, **headers) = ask(Net::HTTP::Post.new(path, **headers).tap { |post| post.body = body })

  # @return [Net::HTTPResponse]
  def get(path) = ask(Net::HTTP::Get.new(path))

  private

  def ask(request)
    request["Cookie"] = @cookies.map { |name, value| "#{name}=#{value}" }.join("; ")
    request["Host"] = @named if @named
    tls = {use_ssl: @address.scheme == "https", verify_mode: OpenSSL::SSL::VERIFY_NONE}
    answer = Net::HTTP.start(@address.host, @address.port, read_timeout: @patience_s, open_timeout: @patience_s, **tls) { |http| http.request(request) }
    answer.get_fields("set-cookie").to_a.each { |field| @cookies.store(*field[/\A[^;]+/].split("=", 2)) }
    answer
  end
end
