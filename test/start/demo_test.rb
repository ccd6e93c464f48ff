# frozen_string_literal: true

require "minitest/mock"
require_relative "../support/demo_files"
require_relative "../support/live_test"
require_relative "../../demo/load"

# The demo show is there whole, or not at all.
class DemoTest < LiveTest
  Files = Bavard::Demo::Files

  def setup
    super
    @data = Bavard::Start::DataFolder.new(Dir.mktmpdir("bavard-demo"))
  end

  def load = Bavard::Demo::Load.new(db, @data, nil).load
  def with_kept_files(&block) = Files.stub(:new, Files.new(@data, kept: DemoFiles.folder), &block)
  def counts = %i[accounts shows stages emotes cast_members fellows files].to_h { |table| [table, db[table].count] }
  def whole = {accounts: 1, shows: 1, stages: 5, emotes: 43, cast_members: 4, fellows: 2, files: 4}

  def test_it_is_made_once
    2.times { with_kept_files { load } }
    assert_equal whole, counts
  end

  def test_a_picture_that_cannot_be_made_leaves_nothing_and_the_next_start_makes_all
    Files.stub(:new, ->(*) { raise Bavard::Error, "reading it took more time or memory than a picture may take" }) do
      assert_raises(Bavard::Error) { load }
    end
    assert_equal 0, counts.values.sum
    with_kept_files { load }
    assert_equal whole, counts
  end

  def test_a_start_that_is_cut_off_leaves_nothing_and_the_next_makes_all
    cut = ->(*) { raise Interrupt }
    with_kept_files { Bavard::Core::Cues::Settings.stub(:default, cut) { assert_raises(Interrupt) { load } } }
    assert_equal 0, counts.values.sum
    with_kept_files { load }
    assert_equal whole, counts
  end

  def test_its_pictures_are_there
    with_kept_files { load }
    ids = db[:emotes].select_map(:picture_id) + db[:fellows].select_map(:picture) + db[:cast_members].select_map(:face)
    cabinet = Bavard::Pictures::Cabinet.new(@data.path("pictures"))
    assert_empty(ids.uniq.reject { |id| cabinet.there?(id) })
    assert_equal(4, db[:files].select_map(:id).count { |id| File.exist?(@data.path("sounds", "#{id}.ogg")) })
  end
end
