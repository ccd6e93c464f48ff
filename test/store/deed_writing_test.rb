# frozen_string_literal: true

require_relative "../support/live_test"

# What people did, as it lies in a file and as it is written.
class DeedWritingTest < LiveTest
  Writing = Bavard::Store::DeedWriting

  def writing
    Writing.new(**%i[shows stages feeds lines left_out deeds].to_h { |name| [name, stores.public_send(name)] })
  end

  def in_a_file(deed) = Writing.from_line(Writing.to_line(deed))

  def test_what_lay_in_a_file_is_written_as_it_was_done_however_often
    show = make_show
    left_out = Bavard::Core::Gate::LeftOut::Entry.new("Ann", @feed.id, 99)
    deed = Bavard::Core::Moderation::Deed.new(id: 5, at_ms: 1, by: "Teo", what: "leave_out", line_id: nil, about: "Ann", detail: {"lines" => [[1, "aired"]]})
    document = with_chat
    [[:left_out, :add, [show.id, left_out, 1, "Teo"], {}], [:deeds, :add, [show.id, deed], {}], [:feeds, :keep, [@feed.id], {wanted: true}],
      [:stages, :put_on_air, [@stage.id, 1, document, 1], {by: "Teo"}], [:shows, :keep_gate, [show.id, show.gate.merge("brake" => {"kind" => "hold_all"})], {}]].each do |given|
      done = Writing::Deed.new(*given)
      assert_equal done, in_a_file(done)
      2.times { writing.write(in_a_file(done)) }
    end
    assert_equal [["Ann", @feed.id]], stores.left_out.of_show(show.id, 0).map { |entry| [entry.name, entry.feed_id] }
    assert_equal [[5, {"lines" => [[1, "aired"]]}]], stores.deeds.latest(show.id).map { |one| [one.id, one.detail] }
    assert_equal [true, document, "hold_all"], [stores.feeds.of_show(show.id).first.wanted, stores.stages.find(@stage.id).on_air, stores.shows.find(show.id).gate.dig("brake", "kind")]
  end

  # Where it runs now others have set it since, and have it in memory.
  def test_what_was_set_before_a_show_went_on_elsewhere_is_not_set_over_it
    show = make_show
    moved = []
    late = Writing.new(moved: moved.method(:include?), **%i[shows stages feeds lines left_out deeds].to_h { |name| [name, stores.public_send(name)] })
    deeds = [[:shows, :rename, [show.id], {name: "Late", host_name: "Late"}], [:stages, :rename, [@stage.id, "Late"], {}],
      [:stages, :keep_order, [[@stage.id]], {}], [:feeds, :keep, [@feed.id], {name: "Late"}]].map { |given| Writing::Deed.new(*given) }
    moved << show.id
    deeds.each do |deed|
      error = assert_raises(Bavard::Conflict) { late.write(deed) }
      assert Bavard::Store::Refusal.of?(error), "it would be tried for ever"
    end
    refute_includes [stores.shows.find(show.id).name, stores.stages.find(@stage.id).name, stores.feeds.find(@feed.id).name], "Late"
    # What somebody did beside that was done.
    left_out = Bavard::Core::Gate::LeftOut::Entry.new("Ann", @feed.id, 99)
    late.write(Writing::Deed.new(:left_out, :add, [show.id, left_out, 1, "Teo"], {}))
    assert_equal ["Ann"], stores.left_out.of_show(show.id, 0).map(&:name)
    moved.clear
    deeds.each { |deed| late.write(deed) }
    assert_equal ["Late"] * 3, [stores.shows.find(show.id).name, stores.stages.find(@stage.id).name, stores.feeds.find(@feed.id).name]
  end

  # Whatever somebody puts there: nothing is called but what people do.
  def test_what_is_no_deed_is_none
    ["", "[", "7", "null", "[1,2,3,4]", '["shows","remove",[1],{}]', '["shows","instance_eval",["exit"],{}]', '["house","stop",[],{}]', '["stages","rename",7,{}]'].each do |line|
      assert_nil Writing.from_line(line), line
    end
  end
end
