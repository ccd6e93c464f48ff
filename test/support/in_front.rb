# frozen_string_literal: true

require "net/http"
require_relative "nginx"
require_relative "own_ports"

# Browser tests with nginx in front of the application, set as ops/nginx has it but without TLS and with ports of their own.
module InFront
  # What a relay takes of the application's settings.
  def relay_env = {"BAVARD_RELAY" => "http://127.0.0.1:#{frames}", "BAVARD_PROXIES" => "127.0.0.1"}
  def frames = @frames ||= OwnPorts.one
  def in_front = @in_front ||= OwnPorts.one
  def link = "http://127.0.0.1:#{in_front}/air/#{@stage.token}"

  # @param apps [Array<RunningApp>]
  # @param parts [Array<String>] what is read within bavard.conf's server
  def begin_in_front(apps, *parts)
    @nginx = Nginx.new(relay: true) { |folder| settings(folder, apps, parts) }.start(in_front)
    @started << Struct.new(:nginx) { def stop = nginx.remove }.new(@nginx)
    Capybara.app_host = "http://127.0.0.1:#{in_front}" if defined?(Capybara)
    wait_for("the relay") { apps.all? { |app| gauge(app, "relay_up") == 1 } }
  end

  def gauge(app, name) = Net::HTTP.get(URI("#{app.address}/metrics"))[/^bavard_#{name} (\d+)/, 1].to_i

  private

  def settings(folder, apps, parts)
    Dir.mkdir(File.join(folder, "bavard.d"))
    parts.each { |name| File.write(File.join(folder, "bavard.d", name), Nginx.shipped(name)) }
    server = Nginx.shipped("bavard.conf").sub("server 127.0.0.1:4600 ", apps.map { |app| "server #{app.address.delete_prefix("http://")}" }.join(" max_fails=0; ") << " ")
      .sub("listen 80", "listen 127.0.0.1:#{OwnPorts.one}").sub("listen 443 ssl", "listen 127.0.0.1:#{in_front}")
      .gsub(/^ *ssl_certificate.*$/, "").sub("/etc/nginx/bavard.d", File.join(folder, "bavard.d"))
    server = server.sub(/^ *proxy_request_buffering off;$/, "") if parts.include?("workers.conf")
    "#{Nginx.shipped("relay.conf").gsub("127.0.0.1:4650", "127.0.0.1:#{frames}")}\n#{server}"
  end
end
