# frozen_string_literal: true

require "etc"
require "fileutils"
require "minitest/autorun"
require "minitest/mock"
require "open3"
require_relative "../../lib/bavard/start/least_rights"
require_relative "../support/demo_files"
require_relative "../support/processes"

# The start command itself, as a host runs it.
class StartTest < Minitest::Test
  include Wait

  # bin/start in a folder of its own.
  class Started
    attr_reader :port, :folder, :pid

    Unanswered = Struct.new(:code, :body)

    # So many ports from the first on are its own, for the stand-ins.
    PORTS = 20

    # @param demo [Boolean] whether the demo show and the made-up platforms come with it
    # @param env [Hash] what else it finds
    def initialize(port: OwnPorts.block_of(PORTS), folder: nil, demo: false, env: {})
      @port = port
      @env = env
      @demo = demo
      @folder = folder || Dir.mktmpdir("bavard-start").tap { |made| FileUtils.chmod(0o755, made) }
      @said = File.join(@folder, "said.txt")
    end

    def start
      File.write(@said, "")
      @pid = spawn({"PORT" => port.to_s, "BAVARD_DATA" => folder, "APP_ENV" => nil, "BAVARD_DEMO_FILES" => DemoFiles.folder, **@env}, "bin/start",
        *("--demo" if @demo), chdir: TestDatabase::PROJECT, in: File::NULL, out: [@said, "a"], err: %i[child out], pgroup: true)
      self
    end

    def said = File.read(@said)
    def links = said.scan(%r{http://\S+/air/\S+})
    def over? = !Process.wait(pid, Process::WNOHANG).nil?
    def ready? = said.include?("Ctrl-C")
    def address = "http://#{@env.key?("BAVARD_BIND") ? "[#{@env["BAVARD_BIND"]}]" : "127.0.0.1"}:#{port}"

    # @return [Net::HTTPResponse, Unanswered]
    def get(path)
      Net::HTTP.get_response(URI("#{address}#{path}"))
    rescue SystemCallError, EOFError
      Unanswered.new("", "")
    end

    def processes = `ps -eo pid,args`.lines.grep(/#{Regexp.escape(folder)}/)

    # As Ctrl-C does: to every process of the terminal's group.
    def interrupt
      Process.kill("INT", -pid)
      Process.wait(pid)
    end
  end

  def setup = @all = []

  def teardown
    @all.each do |one|
      one.interrupt
    rescue Errno::ESRCH, Errno::ECHILD
      nil
    end
    @all.map(&:folder).uniq.each { |folder| stop_database(folder) && FileUtils.rm_rf(folder) }
  end

  def started(...)
    one = Started.new(...)
    @all << one
    one.start
  end

  def until_ready(one)
    wait_for("bin/start to be ready", limit_s: 200) { one.ready? || (one.over? && flunk(one.said)) }
    one
  end

  # @return [Array<Integer>] whose the processes are that it began: the application and the made-up platforms
  def owners(one) = `ps -o uid=,args= --ppid #{one.pid}`.lines.grep(/serve\.rb|standins/).map(&:to_i)

  def test_what_it_begins_has_as_few_rights_as_there_can_be
    one = until_ready(started(demo: true))
    rights = rights_of(one)
    assert_equal [mine(one)] * 5, owners(one)
    assert_equal rights.instead.to_s, one.said[/runs as root: (.*)\./, 1].to_s
    keeps_to_what_is_its_own(one, rights) unless rights.command.empty?
  end

  def rights_of(one) = Bavard::Start::LeastRights.new(Bavard::Start::DataFolder.new(one.folder), TestDatabase::PROJECT).prepare
  def mine(one) = rights_of(one).command.empty? ? Process.uid : Etc.getpwnam(Bavard::Start::LeastRights::USER).uid

  def keeps_to_what_is_its_own(one, rights)
    %w[database.password application.password postgres/PG_VERSION].each do |name|
      refute system(*rights.command("cat", "#{one.folder}/#{name}"), out: File::NULL, err: File::NULL), name
    end
    assert system(*rights.command("cat", "#{one.folder}/session.key"), out: File::NULL)
    %w[database.password log/bavard.log].each { |name| refute system(*rights.command("rm", "-f", "#{one.folder}/#{name}"), err: File::NULL), name }
    refute system(*rights.command("mv", "#{one.folder}/log", "#{one.folder}/gone"), err: File::NULL)
  end

  def test_it_prints_where_everything_is_stops_on_ctrl_c_and_finds_its_data_again
    one = until_ready(started(demo: true))
    assert_match(/^Bavard +#{one.address}$/, one.said)
    assert_match(/^Sign in +odalys@reedmere\.example  \S+-\S+-\S+-\S+$/, one.said)
    assert_match(%r{^Air +#{one.address}/air/[\w-]{32}  \(Dawn wide\)$}, one.said)
    assert_match(%r{^Oxbow +irc://127\.0\.0\.1:\d+/%23reedmere$}, one.said)
    links = one.links
    assert_equal "200", one.get(URI(links.first).path).code
    one.interrupt
    assert_empty one.processes
    assert_equal links, until_ready(started(port: one.port, folder: one.folder)).links
  end

  # An operator's machine has no account that they did not make.
  def test_without_the_demo_it_begins_empty_and_says_how
    one = until_ready(started)
    begin_at = one.said[%r{^Begin +(\S+/account/create-account\?begin=\h{32})$}, 1]
    refute_match(/Sign in|Air|Oxbow/, one.said)
    assert_equal "200", one.get(URI(begin_at).request_uri).code
    assert_equal [mine(one)], owners(one)
  end

  def test_two_copies_do_not_disturb_each_other
    one = until_ready(started)
    two = until_ready(started)
    assert_equal(%w[200 200], [one, two].map { |copy| copy.get("/healthz").code })
    refute_equal(*[one, two].map { |copy| copy.said[/begin=(\h+)/, 1] })
    cookies = [one, two].map { |copy| copy.get("/account/login")["set-cookie"][/\A[^=]+/] }
    assert_equal 2, cookies.uniq.size
    two.interrupt
    assert_equal "200", one.get("/healthz").code
  end

  def serving(one) = `pgrep -P #{one.pid} -f serve.rb`.to_i

  # On another address; what the operator lists is read again on a hang-up, and screens find the same place again.
  def test_where_it_listens_and_a_hang_up
    list = File.join(Dir.mktmpdir.tap { |folder| FileUtils.chmod(0o755, folder) }, "own.json")
    File.write(list, JSON.generate([{key: "ferry", name: "Ferry", kind: "irc", shape: "circle", colour: "#5fb8d6", base: "http://127.0.0.1:1"}]))
    one = until_ready(started(env: {"BAVARD_BIND" => "::1", "BAVARD_PLATFORMS" => list}))
    assert_match(%r{^Bavard +http://\[::1\]:#{one.port}$}, one.said)
    before = serving(one)
    Process.kill("HUP", one.pid)
    wait_for("another one to serve") { ![0, before].include?(serving(one)) && answers?(one) }
    File.write(list, "nonsense")
    Process.kill("HUP", one.pid)
    wait_for("the word of it") { one.said.include?("Bavard ended (status") }
    File.write(list, "[]")
    wait_for("it to answer again") { answers?(one) }
  end

  def test_an_application_that_dies_is_started_again
    one = until_ready(started)
    Process.kill("KILL", `pgrep -P #{one.pid} -f serve.rb`.to_i)
    wait_for("the word of it") { one.said.include?("starting it again") }
    wait_for("it to answer again") { answers?(one) }
  end

  def test_a_database_that_dies_is_started_again_where_it_was
    one = until_ready(started)
    Process.kill("KILL", File.foreach("#{one.folder}/postgres/postmaster.pid").first.to_i)
    wait_for("the word of it") { one.said.include?("The database ended; it is started again.") }
    wait_for("the application to have it again") { answers?(one) }
  end

  def test_several_processes_share_the_shows_and_one_that_ends_is_begun_again
    one = until_ready(started(env: {"BAVARD_WORKERS" => "2"}))
    ports = [one.port, one.port + 1]
    wait_for("both to answer") { ports.all? { |port| port_answers?(port) } }
    assert_equal ports.map { |port| "127.0.0.1:#{port}" }, workers(one)
    second = `ps -o pid=,args= --ppid #{one.pid}`.lines.grep(/serve\.rb/).map(&:to_i).max
    Process.kill("KILL", second)
    wait_for("it to be begun again") { one.said.include?("Bavard's worker 2 ended (signal 9); starting it again") && port_answers?(ports.last) }
    wait_for("it to be there again") { workers(one).size == 2 }
    {"many" => "127.0.0.1", "2" => "0.0.0.0"}.zip([/number from 1 to 10/, /name one address of this machine/]) do |(workers, bind), words|
      refused = started(env: {"BAVARD_WORKERS" => workers, "BAVARD_BIND" => bind})
      wait_for("it to be refused") { refused.over? }
      assert_match words, refused.said
    end
  end

  def port_answers?(port)
    Net::HTTP.get_response(URI("http://127.0.0.1:#{port}/healthz")).is_a?(Net::HTTPOK)
  rescue SystemCallError, EOFError
    false
  end

  # As whoever runs it sees them.
  def workers(one)
    said, status = Open3.capture2e({"BAVARD_DATA" => one.folder}, "bin/admin", "workers", chdir: TestDatabase::PROJECT)
    assert_predicate status, :success?, said
    said.lines.map { |line| line[/\A\S+/] }
  end

  def test_killed_outright_it_leaves_no_application_behind_and_starts_again
    one = until_ready(started)
    Process.kill("KILL", one.pid)
    Process.wait(one.pid)
    wait_for("the application to end") { !answers?(one) }
    until_ready(one.start)
    assert answers?(one)
  end

  def test_a_port_that_is_taken_is_named_with_another_one
    taken = TCPServer.new("127.0.0.1", 0)
    one = started(port: taken.addr[1])
    Process.wait(one.pid)
    assert_match(%r{Port #{one.port} is taken by another program\. Choose another one:  PORT=\d+ bin/start}, one.said)
  ensure
    taken.close
  end

  def test_a_folder_in_use_is_not_used_twice
    one = until_ready(started)
    two = started(folder: one.folder)
    Process.wait(two.pid)
    assert_includes two.said, "Another Bavard uses #{one.folder}"
    assert answers?(one)
  end

  def test_a_port_that_is_none_is_said_to_be
    said, status = Open3.capture2e({"PORT" => "door", "BAVARD_DATA" => Dir.mktmpdir}, "bin/start", chdir: TestDatabase::PROJECT)
    refute_predicate status, :success?
    assert_includes said, "PORT is a number from 1 to 65535, not “door”."
    said, = Open3.capture2e({"BAVARD_DATA" => Dir.mktmpdir}, "bin/start", "--demon", chdir: TestDatabase::PROJECT)
    assert_includes said, "bin/start [--demo]"
  end

  # Whoever looks meanwhile is told what is waited for, and nobody has to start it again.
  def test_a_database_that_cannot_start_says_why_and_is_waited_for
    one = started(folder: Dir.mktmpdir("bavard-broken").tap { |folder| break_database(folder) })
    wait_for("the words") { one.said.include?("PostgreSQL cannot start") }
    wait_for("the waiting room") { one.get("/healthz").code == "503" }
    assert_equal "the database", JSON.parse(one.get("/healthz").body)["waits_for"]
    assert_includes one.get("/feeds").body, "Bavard waits for the database. What screens show stays there."
    refute_includes one.get("/air/#{"x" * 32}").body, "Bavard waits"
    assert_includes one.said, "PostgreSQL cannot start. It says:"
    assert_includes one.said, "server configuration file"
    FileUtils.rm_rf(["#{one.folder}/postgres", "#{one.folder}/database.password"])
    until_ready(one)
    assert answers?(one)
  end

  def test_a_full_disk_is_said_to_be_full
    data = Bavard::Start::DataFolder.new(Dir.mktmpdir)
    error = data.stub(:free_kb, 5) { assert_raises(Bavard::Start::DataFolder::Full) { data.check_room } }
    assert_match(/disk that holds .* is full .* BAVARD_DATA/, error.message)
  end

  def test_a_folder_that_cannot_be_written_to_is_said_to_be_so
    error = assert_raises(Bavard::Error) { Bavard::Start::DataFolder.new("/proc/nowhere").lock }
    assert_includes error.message, "Cannot write to /proc/nowhere"
  end

  private

  def answers?(one) = one.get("/healthz").is_a?(Net::HTTPOK)

  def break_database(folder)
    FileUtils.chmod(0o755, folder)
    FileUtils.mkdir_p("#{folder}/postgres/global")
    File.write("#{folder}/postgres/PG_VERSION", "99\n")
    File.write("#{folder}/postgres/global/pg_control", "x")
    File.write("#{folder}/database.password", "x")
    FileUtils.chown_R(Bavard::Start::Postgres.user, Bavard::Start::Postgres.user, "#{folder}/postgres") if Bavard::Start::Postgres.user
    FileUtils.chmod(0o700, "#{folder}/postgres")
  end

  def stop_database(folder)
    Bavard::Start::Postgres.new(Bavard::Start::DataFolder.new(folder)).stop
    true
  end
end
