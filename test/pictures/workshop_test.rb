# frozen_string_literal: true

require "minitest/autorun"
require "tmpdir"
require_relative "../support/drawings"
require_relative "../support/wait"
require_relative "../../lib/bavard/pictures/cabinet"
require_relative "../../lib/bavard/pictures/workshop"

# Every kind of picture, and everything that is none, in the processes that touch them.
class WorkshopTest < Minitest::Test
  include Wait

  SHOP = Bavard::Pictures::Workshop.new
  Minitest.after_run { SHOP.stop }

  def make(bytes) = SHOP.make(bytes)
  def refused(bytes) = assert_raises(Bavard::Error) { make(bytes) }.message
  def read(bytes) = Vips::Image.new_from_buffer(bytes, "", n: -1)

  def test_every_kind_is_made_anew_as_webp_at_four_sizes
    {svg: Drawings.svg, png: Drawings.png(300, 200), jpeg: Drawings.jpeg, avif: Drawings.avif,
     webp: Drawings.plain.webpsave_buffer}.each do |kind, bytes|
      made = make(bytes)
      assert_equal ["1", "2", "4", *("8" if made.height > 112)], made.files.keys, kind
      assert_equal 1, made.frames
      made.files.each_value { |file| assert_equal ["RIFF", "WEBP"], [file.byteslice(0, 4), file.byteslice(8, 4)], kind }
    end
    sizes = make(Drawings.png(300, 200)).files.values.map { |file| read(file).then { |image| [image.width, image.height] } }
    assert_equal [[42, 28], [84, 56], [168, 112], [300, 200]], sizes
    assert_equal 320, read(make(Drawings.svg).files["8"]).height
  end

  def test_what_moves_keeps_moving_at_its_pace_and_gets_a_still
    {gif: [Drawings.gif, 6, 60], webp: [Drawings.webp, 6, 60], apng: [Drawings.apng, 4, 80]}.each do |kind, (bytes, frames, delay)|
      made = make(bytes)
      assert_equal [frames, %w[1 2 4 still]], [made.frames, made.files.keys], kind
      image = read(made.files["1"])
      assert_equal [frames, [delay] * frames], [image.get("n-pages"), image.get("delay")], kind
      if read(made.files["still"]).get_typeof("n-pages").positive? && read(made.files["still"]).get("n-pages") > 1
        assert_raises(Vips::Error) do
          read(made.files["still"]).get("page-height") && raise(Vips::Error,
            "moves")
        end
      end
      assert_operator made.files["still"].bytesize, :<, made.files["4"].bytesize, kind
    end
  end

  def test_a_small_picture_is_not_blown_up_and_a_banner_is_fitted
    assert_equal [[8, 8]] * 3, make(Drawings.png(8, 8)).files.values.map { |file| read(file).then { |image| [image.width, image.height] } }
    assert_operator read(make(Drawings.png(2000, 20)).files["4"]).width, :<=, 112 * 6
  end

  # Hears how far it is, and stops it once it is so far.
  class Watch
    attr_reader :shares

    def initialize(stop_at = nil)
      @stop_at = stop_at
      @shares = []
    end

    def told(share, _total) = @shares << share
    def stopped? = !@stop_at.nil? && @shares.any? { |share| share >= @stop_at }
  end

  # So many frames, each a little further along.
  def large(width, height, frames)
    drawn = Array.new(frames) { |at| Vips::Image.grey(width, height).linear(120, at * 2).cast(:uchar) }
    joined = Vips::Image.arrayjoin(drawn, across: 1).mutate do |one|
      one.set_type!(GObject::GINT_TYPE, "page-height", height)
      one.set_type!(Vips::ARRAY_INT_TYPE, "delay", [40] * frames)
    end
    joined.gifsave_buffer(effort: 1)
  end

  def test_a_large_moving_one_of_the_hosts_own_is_taken_and_tells_how_far_it_is
    watch = Watch.new
    made = SHOP.make(large(400, 400, 60), "figure", watch:)
    assert_equal [400, 400, 60, %w[1 2 4 still]], [made.width, made.height, made.frames, made.files.keys]
    # Frames that look alike are one that stands longer.
    assert_equal [[120, 2400], [240, 2400], [400, 2400]], %w[1 2 4].map { |name| read(made.files[name]).then { |image| [image.width, image.get("delay").sum] } }
    assert_equal watch.shares.sort, watch.shares
    assert_operator watch.shares.uniq.size, :>, 8
  end

  def test_one_that_is_stopped_leaves_nothing_and_the_next_is_made
    error = assert_raises(Bavard::Stopped) { SHOP.make(large(600, 600, 120), "figure", watch: Watch.new(5)) }
    assert_equal "it was stopped", error.message
    assert_equal 1, make(Drawings.png(30, 20)).frames
  end

  def test_what_comes_from_anywhere_may_not_be_as_large_as_what_a_host_brings
    bounds = Bavard::Pictures::Bounds
    assert_nil bounds.against(1000, 1000, 300, "figure")
    assert_equal "its frames together have too many pixels", bounds.against(1000, 1000, 300)
    assert_equal [150, 150, 0], [bounds.within_s("figure", 300_000_000), bounds.within_s("stage", 10**15), bounds.within_s("emote", 100_000_000)]
  end

  def test_too_large_in_any_way
    assert_includes refused(Drawings.huge_png(30_000)), "30000 × 30000 pixels"
    assert_includes refused(Drawings.gif_of(5000)), "frames; 300 is the most"
    assert_includes refused("\x89PNG\r\n\x1A\n".b + ("x" * (8 * 1024 * 1024))), "more than 8 MB"
    assert_equal "it is empty", refused("")
  end

  def test_what_is_no_picture
    assert_includes refused("hello"), "no PNG, GIF"
    assert_includes refused(Drawings.zip({"a" => "b"}).then { |path| File.binread(path) }), "no PNG, GIF"
    assert_includes refused("<html><svg></svg></html>"), "no PNG, GIF"
    assert_includes refused(Drawings.png.byteslice(0, 40)), "cannot be read"
    assert_includes refused("GIF89a#{"\xFF" * 60}"), "cannot be read"
  end

  # What is kept is pixels: whatever a script or a file in it would have done, it cannot.
  def test_nothing_of_an_svg_survives_but_pixels
    bytes = Drawings.svg(%(<script>alert(1)</script><circle cx="20" cy="20" r="18" onload="alert(2)"/><foreignObject><b>x</b></foreignObject>))
    make(bytes).files.each_value { |file| refute_match(/script|alert|svg/i, file) }
    outside = make(Drawings.svg(%(<image xlink:href="file:///etc/hostname" width="40" height="40"/><image xlink:href="http://127.0.0.1:1/x.png" width="40" height="40"/>)))
    assert_equal 0, read(outside.files["4"]).extract_band(3).max
  end

  # Ten to the twelfth circles from a few hundred bytes.
  def test_an_svg_that_multiplies_is_given_up_and_the_next_picture_comes_through
    layers = (1..12).map { |number| %(<g id="a#{number}">#{%(<use xlink:href="#a#{number - 1}"/>) * 10}</g>) }.join
    refute_empty refused(Drawings.svg(%(<g id="a0"><rect width="1" height="1"/></g>#{layers})))
    assert_equal 1, make(Drawings.svg).frames
  end

  def test_a_press_that_dies_is_replaced
    make(Drawings.png)
    pid = SHOP.instance_variable_get(:@children)["other"].last.pid
    Process.kill("KILL", pid)
    assert_includes refused(Drawings.png(30, 30)), "more time or memory"
    assert_equal 1, make(Drawings.png(30, 30)).frames
  end

  def hasty(within_s)
    shop = Bavard::Pictures::Workshop.new(within_s: {"emote" => within_s})
    shop.make(Drawings.png(8, 8))
    yield shop, shop.instance_variable_get(:@children)["other"].last.pid
  ensure
    shop.stop
  end

  # As on a machine that gives it no time: stopped, it takes as long as it likes and costs nothing.
  def test_a_picture_may_take_long_where_the_machine_is_busy
    hasty(1.5) do |shop, pid|
      Process.kill("STOP", pid)
      making = Thread.new { shop.make(Drawings.png(30, 30)) }
      until_s = now_s + 1.6
      wait_for("more time to pass than it may take") { now_s > until_s }
      Process.kill("CONT", pid)
      assert_equal 30, making.value.width
    end
  end

  def test_a_picture_may_not_take_a_processor_for_long
    turbulent = %(<filter id="f"><feTurbulence baseFrequency="0.9" numOctaves="400"/></filter><rect width="40" height="40" filter="url(#f)"/>)
    shop = Bavard::Pictures::Workshop.new(within_s: {"stage" => 1})
    error = assert_raises(Bavard::Error) { shop.make(Drawings.svg(turbulent), "stage") }
    assert_includes error.message, "more time or memory"
  ensure
    shop.stop
  end

  def test_time_of_a_processor_counts_what_a_process_and_its_group_did
    read, write = IO.pipe
    pid = spawn("ruby", "-e", "system('ruby', '-e', '400_000.times { |n| n.to_s }'); puts; $stdout.flush; sleep", pgroup: true, out: write)
    read.gets
    assert_operator Bavard::Pictures::ProcessorTime.of(pid), :>, 0.05
    Process.kill("KILL", -pid)
    Process.wait(pid)
    assert_predicate Bavard::Pictures::ProcessorTime.of(pid), :zero?
  end

  def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  def test_the_same_bytes_have_the_same_name
    assert_equal make(Drawings.png).id, make(Drawings.png).id
    refute_equal make(Drawings.png).id, make(Drawings.png(10, 10)).id
  end

  def test_the_cabinet_hands_out_what_it_keeps_and_nothing_else
    Dir.mktmpdir do |folder|
      cabinet = Bavard::Pictures::Cabinet.new(folder)
      made = cabinet.keep(make(Drawings.gif))
      assert_equal made.files["2"], File.binread(cabinet.find("#{made.id}-2.webp"))
      ["#{made.id}-9.webp", "../#{made.id}-2.webp", "#{made.id}-2.webp\n", "#{"0" * 32}-2.webp", ""].each do |name|
        assert_nil cabinet.find(name), name
      end
      assert_empty Dir["#{folder}/**/*.part"]
    end
  end
end
