# frozen_string_literal: true

require "fileutils"
require "socket"
require "tmpdir"
require_relative "elsewhen"
require_relative "own_ports"
require_relative "wait"

# nginx in a folder of its own, with what ships in ops/nginx.
class Nginx
  include Wait

  PROGRAM = "/usr/local/lib/nginx-package/usr/sbin/nginx"
  NCHAN = "/usr/local/lib/libnginx-mod-nchan-package/usr/lib/nginx/modules/ngx_nchan_module.so"
  OPS = File.expand_path("../../ops/nginx", __dir__)
  # Where Nchan looks, whatever is set, before it reads where to look.
  ITS_FOLDER = "/var/lib/nginx"
  # What nginx would write into folders of the system's.
  ELSEWHERE = %w[client_body proxy fastcgi uwsgi scgi].freeze

  attr_reader :folder, :pid

  # @param name [String] as it ships
  # @return [String] what stands in it
  def self.shipped(name) = File.read(File.join(OPS, name))

  # @return [Boolean] whether anybody does
  def self.listens?(port, host = "127.0.0.1")
    TCPSocket.new(host, port).close
    true
  rescue SystemCallError
    false
  end

  # @yieldparam folder [String]
  # @yieldreturn [String] what stands in its http block
  #
  # @param relay [Boolean] with Nchan
  # @param connections [Integer] how many it may have at once
  # @param inside [String, nil] the network namespace that it is to run in
  def initialize(relay: false, connections: 512, inside: nil)
    @connections = connections
    @within = inside ? ["ip", "netns", "exec", inside] : []
    @folder = Dir.mktmpdir("bavard-nginx").tap { |made| FileUtils.chmod(0o755, made) }
    FileUtils.mkdir_p(ITS_FOLDER) if relay
    @module = relay ? "load_module #{NCHAN};" : ""
    @http = yield @folder
  end

  # @param listens [Integer] the port by which it is known to be there
  def start(listens, host = "127.0.0.1")
    File.write(file("nginx.conf"), written)
    @pid = spawn(Elsewhen.env, *@within, PROGRAM, "-e", "stderr", "-p", folder, "-c", file("nginx.conf"), out: file("said"), err: %i[child out])
    wait_for(-> { "nginx:\n#{said}" }) { Nginx.listens?(listens, host) }
    self
  end

  # @return [Array<Integer>] processes that do its work
  def workers = File.read("/proc/#{@pid}/task/#{@pid}/children").split.map(&:to_i)

  def said = File.read(file("said"))

  # @param signal [String] "TERM", or what else ends it
  def stop(signal = "TERM")
    return unless @pid

    [@pid, *(workers if signal == "KILL")].each { |one| Process.kill(signal, one) }
    Process.wait(@pid)
    @pid = nil
  end

  def remove
    stop
    FileUtils.rm_rf(folder)
  end

  private

  def file(name) = File.join(folder, name)

  def written
    <<~CONF
      #{@module}
      daemon off;
      #{"user root;" if Process.uid.zero?}
      pid #{file("pid")};
      worker_rlimit_nofile #{@connections * 2};
      events { worker_connections #{@connections}; }
      http {
        access_log off;
        #{ELSEWHERE.map { |name| "#{name}_temp_path #{file(name)};" }.join(" ")}
        #{@http.gsub("/var/cache/bavard", file("cache"))}
      }
    CONF
  end
end
