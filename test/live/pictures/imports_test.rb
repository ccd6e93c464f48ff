# frozen_string_literal: true

require "minitest/mock"
require_relative "../../support/live_test"
require_relative "../../support/wait"

# Pictures on their way onto a shelf, each pack with a process of its own.
class ImportsTest < LiveTest
  include Wait

  def under_way = Thread.list.count { |thread| thread.name == "import" }
  def begun(path) = imports.begin(1, ["files", "wren.png", path], folder: @folder = Dir.mktmpdir, target: Bavard::Live::Imports::Target.new)

  def test_one_that_is_stopped_while_its_process_is_being_begun_does_not_go_on
    # Whoever reads that waits for whoever writes into it: nobody does.
    endless = File.join(Dir.mktmpdir, "endless").tap { |path| File.mkfifo(path) }
    told = Queue.new
    sealed = Bavard::Aside.method(:sealed)
    stopping = lambda do |*given|
      imports.stop(told.pop)
      sealed.call(*given)
    end
    import = Bavard::Aside.stub(:sealed, stopping) do
      begun(endless).tap do |one|
        told << one
        wait_for("its process") { told.empty? && (one.pid || under_way.zero?) }
      end
    end
    wait_for("its process to go") { under_way.zero? }
    assert_equal [:stopped, "It was stopped. Nothing was changed."], [import.state, import.words]
    refute_path_exists @folder
  end

  def test_what_is_over_has_no_process_that_might_be_ended_in_its_place
    import = begun(File.join(Dir.mktmpdir, "missing.png"))
    wait_for("its end") { import.state == :refused && under_way.zero? }
    assert_nil import.pid
  end
end
