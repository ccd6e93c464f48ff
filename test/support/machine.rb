# frozen_string_literal: true

require "fileutils"
require "open3"
require "tmpdir"
require_relative "wait"

# A Debian of its own within this one, for what docs/operating.md says an operator types: namespaces for files, processes and network, where
# /opt, /etc, /var and the ports are nobody else's, and where nothing is left of it afterwards. Debian's packages are those that are installed here.
# systemd, an editor and what fetches packages are played by test/support/machine/.
class Machine
  include Wait

  PROJECT = File.expand_path("../..", __dir__)
  # Where this project stands there.
  BROUGHT = "/srv/bavard"
  PLAYED = "#{BROUGHT}/test/support/machine/bin".freeze
  NAMESPACES = %w[--mount --net --pid --ipc --fork --kill-child --mount-proc --propagation private].freeze
  # Ports that the world reaches.
  OPEN = [80, 443].freeze
  # Its own, and empty.
  EMPTY = %w[/opt /root /var/backups /var/log /var/cache /run].freeze
  ENVIRONMENT = {"PATH" => "#{PLAYED}:/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin:/sbin:/bin", "HOME" => "/root", "LC_ALL" => "C.UTF-8",
                 "TZ" => ENV.fetch("TZ", nil)}.freeze

  # Why there is none here, or nil.
  def self.impossible
    return "only root makes namespaces" unless Process.uid.zero?

    said, status = Open3.capture2e("unshare", *NAMESPACES, "true")
    "no namespaces here: #{said}" unless status.success?
  end

  def initialize
    @folder = Dir.mktmpdir("bavard-machine").tap { |made| FileUtils.chmod(0o755, made) }
  end

  def start
    FileUtils.mkdir_p(%w[/var/backups /srv /var/cache].reject { |path| Dir.exist?(path) })
    read, @write = IO.pipe
    @pid = spawn({**ENVIRONMENT}, "unshare", *NAMESPACES, "bash", "-euc", setting_up, in: read, out: file("said"), err: %i[child out], unsetenv_others: true)
    read.close
    wait_for(-> { "a machine: #{File.read(file("said"))}" }) { File.read(file("said")).include?("up\n") || gone? }
    @inside = File.read("/proc/#{@pid}/task/#{@pid}/children").to_i
    self
  end

  # What is typed there, as root.
  #
  # @param line [String] for a shell
  # @return [Array(String, Boolean)] what it said, and whether it went well
  def type(line, **env)
    said, status = Open3.capture2e({**ENVIRONMENT, **env.transform_keys(&:to_s)},
      "nsenter", "--target", @inside.to_s, "--mount", "--net", "--pid", "--ipc", "--wdns=#{@at || "/root"}", "bash", "-c", line, unsetenv_others: true)
    [said, status.success?]
  end

  # In which folder things are typed from now on.
  def cd(folder) = @at = folder

  # @return [String] path of the socket by which one of {OPEN} is reached from outside
  def door(port) = file("doors/#{port}")

  # Where it is seen from here.
  def path(inside) = File.join("/proc/#{@inside}/root", inside)

  def stop
    return unless @pid

    @write.close
    Process.kill("KILL", @pid)
    Process.wait(@pid)
    @pid = nil
  rescue Errno::ESRCH
    nil
  ensure
    FileUtils.rm_rf(@folder)
  end

  private

  def file(name) = File.join(@folder, name)

  def gone?
    Process.wait(@pid, Process::WNOHANG) && raise(Minitest::Assertion, "no machine: #{File.read(file("said"))}")
  end

  # /tmp is the last: it hides where all of this lies.
  def setting_up
    <<~BASH
      ip link set lo up
      m=#{@folder}
      mkdir -p $m/etc $m/lib $m/tmp $m/srv/bavard $m/doors $m/empty
      chmod 1777 $m/tmp
      cp -a /etc/. $m/etc/
      mount --bind $m/etc /etc
      mount --bind #{PROJECT} $m/srv/bavard
      for one in /var/lib/*; do
        [ ! -d "$one" ] || [ "$one" = /var/lib/bavard ] || { mkdir "$m/lib/${one##*/}"; mount --rbind "$one" "$m/lib/${one##*/}"; }
      done
      mount --rbind $m/lib /var/lib
      mount --rbind $m/srv /srv
      for one in #{EMPTY.join(" ")}; do mkdir -p "$m/empty$one"; mount --bind "$m/empty$one" "$one"; done
      mkdir -p /run/systemd/system /run/doors /var/lib/nginx /var/log/nginx /etc/nginx/conf.d
      cp #{PLAYED}/../nginx.conf /etc/nginx/nginx.conf
      cp #{PLAYED}/../nginx.service /etc/systemd/system/nginx.service
      mount --bind $m/doors /run/doors
      mount --rbind $m/tmp /tmp
      ruby #{PLAYED}/../doors.rb /run/doors #{OPEN.join(" ")} &
      echo up
      read -r || true
    BASH
  end
end
