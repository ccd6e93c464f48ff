# frozen_string_literal: true

require_relative "../../support/live_test"
require_relative "../../../lib/bavard/core/pieces/look_document"

# Edits of running stages: kept, told, undone, put on air, shared.
class StageEditorTest < LiveTest
  def setup
    super
    @record = make_show(document: with_chat, on_air: true)
    @other = stores.stages.create(@record.id, name: "Other", document: with_chat)
    @shows = Bavard::Live::Shows.new(means, lease:).start
    @show = @shows.run(@record.id)
  end

  def desk(stage = @stage) = @show.desks[stage.id]
  def ask(&block) = @show.ask(&block)

  def edit(edit, stage: @stage, **more)
    ask { desk(stage).editor.edit({"do" => "set", "piece" => "chat1"}.merge(edit), **more) }
  end

  def size_of(document) = document["pieces"][0]["text_size_px"]
  def later(ms) = ask { @clock.now_ms += ms }

  def test_an_edit_is_kept_a_moment_later_and_only_the_newest_of_many
    (30..60).each { |size| edit({"values" => {"text_size_px" => size}}) }
    later(500)
    wait_for("the draft to be kept") { size_of(stores.stages.find(@stage.id).draft) == 60 }
  end

  def test_after_a_restart_the_draft_is_as_it_was_and_so_is_what_is_on_air
    edit({"values" => {"text_size_px" => 41}})
    later(500)
    wait_for("the draft to be kept") { size_of(stores.stages.find(@stage.id).draft) == 41 }
    again = stores.stages.find(@stage.id)
    assert_equal [41, 25, 1], [size_of(again.draft), size_of(again.on_air), again.revision]
  end

  def test_pages_are_told_of_pieces_that_changed_and_of_no_others
    ask { desk.editor.edit({"do" => "add", "kind" => "text"}) }
    ask { desk.editor.news }
    edit({"values" => {"text_size_px" => 33}})
    told = ask { desk.editor.news }
    assert_equal [%w[chat1 text1], ["chat1"]], [told[:order], told[:pieces].map { |piece| piece["id"] }]
    assert_nil(ask { desk.editor.news })
    assert_equal 2, ask { desk.editor.news(whole: true) }[:pieces].size
  end

  def test_a_colour_of_the_show_reaches_the_drafts_of_all_its_stages_and_no_viewer
    value = {"name" => "Ink", "value" => "#123456"}
    ask { desk.editor.edit({"do" => "house", "sort" => "colours", "key" => "ink", "value" => value}) }
    [@stage, @other].each { |stage| assert_equal "#123456", ask { desk(stage).stage.draft.dig("house", "colours", "ink", "value") } }
    assert_equal "#ffffff", ask { desk.stage.on_air.dig("house", "colours", "ink", "value") }
    assert_equal ["The show’s Ink: #ffffff → #123456"], ask { desk.editor.changes }
    ask { desk.editor.undo }
    [@stage, @other].each { |stage| assert_equal "#ffffff", ask { desk(stage).stage.draft.dig("house", "colours", "ink", "value") } }
  end

  def test_edits_of_one_gesture_are_undone_together_whatever_they_set
    edit({"values" => {"width" => 500}, "gesture" => "a"})
    edit({"values" => {"x" => 40, "width" => 460}, "gesture" => "a"})
    edit({"values" => {"x" => 41}, "gesture" => "b"})
    ask { desk.editor.undo }
    assert_equal [40, 460], ask { desk.stage.draft["pieces"][0].values_at("x", "width") }
    ask { desk.editor.undo }
    assert_equal [0, 600], ask { desk.stage.draft["pieces"][0].values_at("x", "width") }
    assert_nil(ask { desk.editor.undo })
  end

  def test_a_new_edit_ends_what_could_be_done_again
    edit({"values" => {"x" => 1}})
    ask { desk.editor.undo }
    assert ask { desk.editor.redo? }
    edit({"values" => {"x" => 2}})
    refute(ask { desk.editor.redo? })
  end

  def test_where_edits_go_on_air_at_once_what_came_of_them_gets_one_number
    ask { desk.editor.air_at_once = true }
    3.times { |number| edit({"values" => {"text_size_px" => 50 + number}}) }
    assert_equal 52, size_of(ask { desk.stage.on_air })
    later(Bavard::Live::StageEditor::REST_MS + 1)
    wait_for("the revision") { stores.stages.find(@stage.id).revision == 2 }
    assert_equal [2, 1], stores.stages.revisions(@stage.id).map(&:number)
    assert_equal 52, size_of(stores.stages.document_of(@stage.id, 2))
  end

  def test_revisions_say_who_put_them_on_air
    edit({"values" => {"text_size_px" => 44}}, by: "Ibrahim")
    ask { |show| desk.put_on_air(show.now_ms, by: "Ibrahim") }
    wait_for("the revision") { stores.stages.revisions(@stage.id).first.by == "Ibrahim" }
  end

  def test_set_back_is_what_is_on_air_and_can_be_undone
    edit({"values" => {"text_size_px" => 44}})
    ask { desk.editor.set_back }
    assert_empty(ask { desk.editor.changes })
    ask { desk.editor.undo }
    assert_equal 44, size_of(ask { desk.stage.draft })
    assert_raises(Bavard::Error) { ask { desk(@other).editor.set_back } }
  end

  def test_only_so_many_steps_are_remembered
    most = Bavard::Live::StageEditor::MOST_UNDO
    # A few hundred at a time: one question is to be answered within seconds, however busy the machine is.
    (1..(most + 5)).each_slice(200) { |some| ask { some.each { |x| desk.editor.edit({"do" => "set", "piece" => "chat1", "values" => {"x" => x}}) } } }
    undone = (1..(most + 5)).each_slice(200).sum { |some| ask { some.count { desk.editor.undo } } }
    assert_equal most, undone
    assert_equal 5, ask { desk.stage.draft["pieces"][0]["x"] }
  end

  def test_what_is_set_while_the_broadcast_goes_on_reaches_draft_and_air_and_is_kept
    ask { desk.editor.edit({"do" => "add", "kind" => "now_line"}) }
    ask { |show| desk.put_on_air(show.now_ms) }
    ask { desk.set_live { |live| live.text("now_line1", "a wren") } }
    later(100)
    %w[draft air].each do |which|
      wait_for("the #{which}") { hub.frames("#{which}:#{@stage.id}").last.dig("live", "now_line1", "lines") == ["a wren"] }
    end
    until_written
    assert_equal({"now_line1" => "a wren"}, stores.stages.find(@stage.id).live["texts"])
  end

  def test_a_stage_taken_away_is_gone_after_a_restart_and_back_where_it_was_when_put_back
    ask { |show| show.remove_stage(@stage.id) }
    until_written
    assert_equal [@other.id], stores.stages.of_show(@record.id).map(&:id)
    ask { |show| show.put_back_stage(@stage.id) }
    until_written
    assert_equal [@stage.id, @other.id], stores.stages.of_show(@record.id).map(&:id)
    assert_raises(Bavard::Error) { ask { |show| show.put_back_stage(@stage.id) } }
    assert_raises(Bavard::Error) { ask { |show| show.remove_stage(999) } }
  end
end
