# frozen_string_literal: true

require_relative "../support/team_test"

# What somebody with a role does is kept under their own name, not the host's.
class WhoseDeedTest < TeamTest
  def setup
    super
    as(:owner) { make_stage }
    join(invite("director", name: "Teo"))
  end

  def as_teo
    as(:teo) do
      @csrf ||= token_on("/stage/#{@stage.id}")
      yield
      assert_equal 200, last_response.status, last_response.body
    end
    until_written
  end

  def edit(kind = "text")
    send_json("/stage/#{@stage.id}/edits", {"do" => "add", "kind" => kind})
  end

  def show = @shows.run(@show_record.id)
  def deeds = stores.deeds.latest(@show_record.id).drop(2).map { |deed| [deed.what, deed.by, deed.about] }
  def revisions = stores.stages.revisions(@stage.id).map { |revision| [revision.number, revision.by] }

  def test_what_is_put_on_air_names_who_did_it
    as_teo do
      edit
      send_form("/stage/#{@stage.id}/put-on-air")
    end
    assert_equal [[[1, "Teo"]], [["air", "Teo", "Main, revision 1"]]], [revisions, deeds]
  end

  # Whoever is told that it is done is told the truth, even where the machine goes off in the next moment.
  def test_what_somebody_did_is_kept_before_it_is_answered
    as(:teo) do
      @csrf = token_on("/stage/#{@stage.id}")
      edit
      5.times do |before|
        send_form("/stage/#{@stage.id}/put-on-air")
        assert_equal [before + 1, before + 1], [revisions.size, deeds.size]
      end
    end
  end

  def test_so_does_what_goes_on_air_at_once
    as_teo do
      edit
      send_form("/stage/#{@stage.id}/at-once", {"on" => "1"})
      edit("clock")
    end
    clock.now_ms += Bavard::Live::StageEditor::REST_MS
    wait_for("the revision to be numbered") { show.ask { |running| running.desk(@stage.id).stage.revision } == 2 }
    until_written
    assert_equal [[1, "Teo"], [2, "Teo"]], revisions.sort
  end

  def test_a_revision_is_brought_back_by_whoever_does_it
    as(:owner) do
      edit
      send_form("/stage/#{@stage.id}/put-on-air")
    end
    until_written
    as_teo { send_form("/stage/#{@stage.id}/revisions/1/restore") }
    assert_equal ["restore", "Teo", "Main, revision 1"], deeds.last
    assert_equal("Teo", show.ask { |running| running.desk(@stage.id).editor.last_by })
  end

  def test_a_copy_is_taken_in_by_whoever_does_it
    copy = as(:owner) { get("/stage/#{@stage.id}/copy?what=stage").body }
    as_teo { send_form("/stage/#{@stage.id}/copy-in", {"text" => copy}) }
    assert_equal("Teo", show.ask { |running| running.desk(@stage.id).editor.last_by })
  end

  def test_each_button_of_the_queue_leaves_a_deed
    as_teo do
      3.times { |number| send_form("/dress/cues/try", {"kind" => "follow", "name" => "Kestrel #{number}", "where" => "screens"}) }
      send_form("/dress/cues/now/pause")
      send_form("/dress/cues/now/go_on")
      send_form("/dress/cues/now/clear")
    end
    assert_equal [%w[cue_pause Teo], %w[cue_go_on Teo], %w[cue_clear Teo]], deeds.map { |deed| deed.first(2) }
  end

  def test_the_broadcast_is_begun_and_ended_by_somebody
    as_teo do
      send_form("/dress/cues/begin")
      send_form("/dress/cues/end")
    end
    assert_equal [["begin", "Teo", nil], ["end", "Teo", nil]], deeds
  end

  def test_an_answer_has_one_limit_and_one_name_wherever_it_is_written
    feed = stores.feeds.create(@show_record.id, kind: "irc", name: "Marsh", shape: "circle", colour: "#5fb8d6", address: {})
    show.ask { |running| running.add_feed(feed) }
    long = "x" * (Bavard::Live::Answers::LONGEST + 1)
    as_teo do
      send_form("/feeds/answer", {"text" => "  from\n Feeds ", "feeds" => feed.id.to_s})
      send_json("/prompter/answer", {"text" => "from the prompter", "feeds" => [feed.id]})
    end
    assert_equal [["answer", "Teo", "from Feeds"], ["answer", "Teo", "from the prompter"]], deeds
    as(:teo) do
      answers = [send_form("/feeds/answer", {"text" => long, "feeds" => feed.id.to_s}), send_json("/prompter/answer", {"text" => long, "feeds" => [feed.id]})]
      assert_equal ["An answer has room for 400 characters."], answers.map { |one| one["error"] }.uniq
      answers = [send_form("/feeds/answer", {"text" => " ", "feeds" => ""}), send_json("/prompter/answer", {"text" => " ", "feeds" => []})]
      assert_equal ["There is nothing to send yet."], answers.map { |one| one["error"] }.uniq
      assert_equal "feeds", send_json("/prompter/answer", {"text" => "x", "feeds" => []})["field"]
    end
  end
end
